import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type Student } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Problem } from "../../ui/Problem";

/** Putting a student away, and deleting one with everything, after one honest question. */
export function AwayAndGone({ student, onGone }: { student: Student; onGone: () => void }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
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
      {asking ? (
        <>
          <p className="mb-2">
            Delete {student.name} with all climbs, takes, notes and the plan? This cannot be taken back; a
            backup can bring it back. Drills stay.
          </p>
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="button text-error"
              disabled={remove.isPending}
              onClick={() => remove.mutate()}
            >
              Delete everything of {student.name}
            </button>
            <button type="button" className="button button-quiet" onClick={() => setAsking(false)}>
              Keep it
            </button>
          </div>
        </>
      ) : (
        <div className="flex flex-wrap gap-2">
          <button type="button" className="button button-quiet" onClick={() => away.mutate()}>
            {student.is_put_away ? "Take back" : "Put away"}
          </button>
          <button type="button" className="button button-quiet text-error" onClick={() => setAsking(true)}>
            Delete …
          </button>
        </div>
      )}
      {(away.error ?? remove.error) && <Problem error={(away.error ?? remove.error) as Error} />}
    </div>
  );
}
