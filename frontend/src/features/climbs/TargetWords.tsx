import type { Choices, Plan } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { listed } from "../../ui/brief/listed";

type Props = { plan: Plan; choices: Choices; onChange: (plan: Plan) => void };
type Target = Plan["target"];

/** Whether the tempo stays and something else is climbed. */
export const isWithoutSpeed = ({ target }: Plan) =>
  target.kind === "steady" || target.kind === "heart" || target.kind === "hits";

/** Where a climb leads: the kind of target, and what it says. */
export function TargetWords({ plan, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="kind of target"
        field="target.kind"
        value={plan.target.kind}
        choices={choices.targets}
        onChange={(kind) => {
          const fresh = choices.targets.find((one) => one.value === kind)?.fresh;
          const ladder = choices.click_ladders[0]?.plans ?? [];
          if (!fresh) return;
          // Steadiness is climbed by the click alone, so that it needs a ladder of clicks.
          const clicks = kind === "steady" && plan.clicks.length < 2 ? ladder : plan.clicks;
          onChange({ ...plan, target: fresh, clicks });
        }}
      />
      <Said target={plan.target} onChange={(target) => onChange({ ...plan, target })} />
    </>
  );
}

function Said({ target, onChange }: { target: Target; onChange: (target: Target) => void }) {
  switch (target.kind) {
    case "bpm":
      return (
        <>
          {" "}
          <AmountField
            label="target tempo in bpm"
            field="target"
            what="bpm"
            exact={target.bpm}
            onChange={(bpm) => onChange({ ...target, bpm })}
          />{" "}
          bpm
        </>
      );
    case "speed":
      return (
        <>
          {" "}
          <AmountField
            label="target speed in notes a second"
            field="target"
            what="number"
            exact={target.nps}
            onChange={(nps) => onChange({ ...target, nps })}
          />{" "}
          notes a second, where it is fastest
        </>
      );
    case "band":
      return (
        <>
          {" "}
          <AmountField
            label="lower edge of the band in notes a second"
            field="target"
            what="number"
            exact={target.low}
            onChange={(low) => onChange({ ...target, low })}
          />{" "}
          to{" "}
          <AmountField
            label="upper edge of the band in notes a second"
            field="target.high"
            what="number"
            exact={target.high}
            onChange={(high) => onChange({ ...target, high })}
          />{" "}
          notes a second, where it is fastest
        </>
      );
    case "heart":
    case "hits":
      return (
        <>
          :{" "}
          <BriefField
            label="the steps, with semicolons between them"
            field="target.steps"
            value={target.steps.join("; ")}
            hint="One after the other, with a semicolon between them: the notes; the rhythm; the accents."
            long
            onChange={(text) => onChange({ ...target, steps: listed(text, ";") })}
          />
        </>
      );
    case "steady":
      return <>: the tempo stays, the click goes</>;
  }
}
