import { useMutation } from "@tanstack/react-query";
import { api, type Plan, type Student } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Problem } from "../../ui/Problem";

type Props = { student: Pick<Student, "id" | "name" | "clicks" | "revision">; clicks: Plan["clicks"] };

/** Keeps a click ladder as the student’s own: new climbs of that student begin with it. */
export function KeepLadder({ student, clicks }: Props) {
  const keep = useMutation({
    mutationFn: () => api.keepClicks(student.id, clicks, student.revision),
    onSuccess: forgetWork,
  });
  const isOwn = JSON.stringify(student.clicks) === JSON.stringify(clicks);
  return (
    <>
      <button
        type="button"
        className="button button-quiet"
        disabled={keep.isPending || isOwn}
        onClick={() => keep.mutate()}
      >
        {isOwn ? `This is the ladder of ${student.name}` : `Keep it as the ladder of ${student.name}`}
      </button>
      {keep.isError && <Problem error={keep.error} />}
    </>
  );
}
