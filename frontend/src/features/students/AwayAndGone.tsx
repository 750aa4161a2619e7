import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, type Student } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { AskFirst } from "../../ui/AskFirst";
import { Problem } from "../../ui/Problem";

/** Putting a student away, and deleting one with everything, after one honest question. */
export function AwayAndGone({ student, onGone }: { student: Student; onGone: () => void }) {
  const navigate = useNavigate();
  const away = useMutation({
    mutationFn: () => api.putAway(student.id, !student.is_put_away),
    onSuccess: () => {
      forgetWork();
      onGone();
    },
  });
  const remove = useMutation({
    mutationFn: () => api.deleteStudent(student.id),
    onSuccess: () => {
      void navigate("/students", { replace: true });
      forgetWork();
    },
  });
  return (
    <div className="sm:col-span-2 border-t border-base-300 pt-3">
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button button-quiet" onClick={() => away.mutate()}>
          {student.is_put_away ? "Take back" : "Put away"}
        </button>
        <AskFirst
          offer="Delete …"
          question={`Delete ${student.name} with all climbs, takes, notes and the plan? This cannot be taken back; a backup can bring it back. Drills stay.`}
          confirm={`Delete everything of ${student.name}`}
          busy={remove.isPending}
          onConfirm={() => remove.mutate()}
        />
      </div>
      {(away.error ?? remove.error) && <Problem error={(away.error ?? remove.error) as Error} />}
    </div>
  );
}
