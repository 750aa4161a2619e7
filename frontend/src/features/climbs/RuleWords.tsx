import type { Choices, Plan } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { listed } from "../../ui/brief/listed";
import { typedCount } from "../../ui/brief/typedCount";

type Props = { plan: Plan; choices: Choices; onChange: (plan: Plan) => void };
type Rule = Plan["rule"];

/** How the rungs are spaced: the kind of rule, and its numbers. */
export function RuleWords({ plan, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="rule for steps"
        field="rule.kind"
        value={plan.rule.kind}
        choices={choices.rules}
        onChange={(kind) => {
          const fresh = choices.rules.find((one) => one.value === kind)?.fresh;
          if (fresh) onChange({ ...plan, rule: fresh });
        }}
      />
      <NumbersOf rule={plan.rule} onChange={(rule) => onChange({ ...plan, rule })} />
    </>
  );
}

function NumbersOf({ rule, onChange }: { rule: Rule; onChange: (rule: Rule) => void }) {
  switch (rule.kind) {
    case "percent":
    case "even":
      return (
        <>
          , <Step rule={rule} onChange={onChange} /> a step
        </>
      );
    case "zigzag":
      return (
        <>
          , <Step rule={rule} onChange={onChange} /> bpm up and{" "}
          <AmountField
            label="bpm back in turn"
            field="rule.back"
            what="number"
            exact={rule.back}
            onChange={(back) => onChange({ ...rule, back })}
          />{" "}
          back
        </>
      );
    case "checkpoints":
      return (
        <>
          {" "}
          (
          <CountField
            label="checkpoints"
            field="rule.count"
            value={rule.count}
            onChange={(count) => onChange({ ...rule, count })}
          />{" "}
          of them)
        </>
      );
    case "divide":
      return (
        <>
          {" "}
          through{" "}
          <BriefField
            label="divisions to pass first"
            field="rule.divisions"
            value={rule.divisions.join(" ")}
            hint="Notes a beat, rising: 2 3 4. Then the beat is raised with the last of them."
            onChange={(text) => onChange({ ...rule, divisions: listed(text) })}
          />{" "}
          a beat, then by <Step rule={rule} onChange={onChange} /> bpm
        </>
      );
    case "bursts":
      return (
        <>
          {" "}
          of{" "}
          <BriefField
            label="lengths of the bursts in beats"
            field="rule.beats"
            value={rule.beats.join(" ")}
            hint="Rising: 1 2 4 8. Each ends on the note that it arrives on, and rests as long."
            onChange={(text) => onChange({ ...rule, beats: listed(text).map((one) => typedCount(one)) })}
          />{" "}
          beats
        </>
      );
  }
}

type StepProps<R extends Rule & { step: string }> = { rule: R; onChange: (rule: R) => void };

function Step<R extends Rule & { step: string }>({ rule, onChange }: StepProps<R>) {
  return (
    <AmountField
      label="size of a step"
      field="rule.step"
      what="number"
      exact={rule.step}
      onChange={(step) => onChange({ ...rule, step })}
    />
  );
}
