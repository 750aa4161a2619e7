import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Choices, type Group, type Plan } from "../../api/client";
import { drillsQuery, forgetWork } from "../../api/queries";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { Dialog } from "../../ui/Dialog";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";
import { RuleWords } from "../climbs/RuleWords";
import { startOf } from "../climbs/startOf";
import { TargetWords } from "../climbs/TargetWords";
import { FormSelect } from "../students/fields";

type Props = { group: Group; choices: Choices; onClose: () => void };

/** One drill handed to all of a group, each from an own start. */
export function HandOut({ group, choices, onClose }: Props) {
  const drills = useQuery(drillsQuery);
  const [changed, setPlan] = useState<Plan | null>(null);
  const [starts, setStarts] = useState<Record<number, string>>({});
  const [chosen, setChosen] = useState<number | null>(null);
  const drillId = chosen ?? drills.data?.drills[0]?.id ?? null;
  const lineOf = (id: number | null) => drills.data?.drills.find((one) => one.id === id);
  const plan = changed ?? startOf(choices.plan, lineOf(drillId));
  const choose = (id: number) => {
    setChosen(id);
    setPlan(changed && startOf(changed, lineOf(id), lineOf(drillId)));
  };
  const once = useOnce();
  const hand = useMutation({
    mutationFn: (id: number) => {
      const body = {
        drill_id: id,
        plan,
        starts: Object.entries(starts).map(([student, start]) => ({ student_id: Number(student), start })),
      };
      return api.handOut(group.id, { ...body, key: once.key(body) });
    },
    onSuccess: () => {
      once.done();
      forgetWork();
      onClose();
    },
  });
  return (
    <Dialog title="One drill for all" onClose={onClose}>
      <FormSelect
        label="Drill"
        field="drill"
        wrong=""
        value={String(drillId ?? "")}
        choices={drills.data?.drills.map((one) => ({ value: String(one.id), label: one.title })) ?? []}
        onChange={(id) => choose(Number(id))}
      />
      <Brief label="The climb of all" refusal={null}>
        To <TargetWords plan={plan} choices={choices} onChange={setPlan} />, rising{" "}
        <RuleWords plan={plan} choices={choices} onChange={setPlan} />. Each from
        {group.members.map(({ student }) => (
          <span key={student.id} className="block">
            {student.name}:{" "}
            <AmountField
              label={`start of ${student.name} in bpm`}
              field={`start.${student.id}`}
              what="bpm"
              exact={starts[student.id] ?? plan.start}
              onChange={(start) => setStarts({ ...starts, [student.id]: start })}
            />{" "}
            bpm
          </span>
        ))}
      </Brief>
      {hand.isError && <Problem error={hand.error} />}
      <div className="flex gap-2 mt-2">
        <button
          type="button"
          className="button button-first"
          disabled={drillId === null || hand.isPending}
          onClick={() => drillId !== null && hand.mutate(drillId)}
        >
          Start {group.members.length} {group.members.length === 1 ? "climb" : "climbs"}
        </button>
        <button type="button" className="button button-quiet" onClick={onClose}>
          Not now
        </button>
      </div>
    </Dialog>
  );
}
