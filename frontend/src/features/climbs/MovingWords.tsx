import type { Choice, Choices, Plan } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";

const counted = (from: number, to: number): Choice[] =>
  Array.from({ length: to - from + 1 }, (_, index) => ({
    value: String(from + index),
    label: String(from + index),
    why: "",
  }));

type Props = { plan: Plan; choices: Choices; onChange: (plan: Plan) => void };

/** When a climb moves: its rule, and the takes or the minutes that decide. */
export function MovingWords({ plan, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="moving rule"
        field="moving"
        value={plan.moving}
        choices={choices.movings}
        onChange={(moving) => onChange({ ...plan, moving: moving as Plan["moving"] })}
      />
      {plan.moving === "time_box" ? (
        <>
          {" "}
          of{" "}
          <CountField
            label="minutes on each rung"
            field="box_minutes"
            value={plan.box_minutes}
            hint="1 to 60 minutes of playing; then more clean takes than shaky ones lead up."
            onChange={(minutes) => onChange({ ...plan, box_minutes: minutes })}
          />{" "}
          minutes
        </>
      ) : (
        <>
          : up after{" "}
          <BriefSelect
            label="clean takes in a row that lead up"
            field="clean_to_rise"
            value={String(plan.clean_to_rise)}
            choices={counted(1, 9)}
            onChange={(count) => onChange({ ...plan, clean_to_rise: Number(count) })}
          />{" "}
          clean {plan.clean_to_rise === 1 ? "take" : "takes in a row"}, back after{" "}
          <BriefSelect
            label="shaky takes in a row that lead back"
            field="shaky_to_fall"
            value={String(plan.shaky_to_fall)}
            choices={counted(2, 9)}
            onChange={(count) => onChange({ ...plan, shaky_to_fall: Number(count) })}
          />{" "}
          shaky
        </>
      )}
    </>
  );
}
