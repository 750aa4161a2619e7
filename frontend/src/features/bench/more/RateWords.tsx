import { AmountField } from "../../../ui/brief/AmountField";
import { BriefField } from "../../../ui/brief/BriefField";

type Props = {
  /** What comes at that rate, for a screen reader: “tap of the foot”. */
  what: string;
  field: "foot" | "body";
  every: string;
  pattern: string;
  onChange: (changed: { every?: string; pattern?: string }) => void;
};

/** At which rate something moves, or by which pattern. */
export function RateWords({ what, field, every, pattern, onChange }: Props) {
  return (
    <>
      {pattern === "" && (
        <>
          {" "}
          every{" "}
          <AmountField
            label={`beats from one ${what} to the next`}
            field={`${field}.every`}
            what="number"
            exact={every}
            hint="1 is each beat, 2 each half note in 4/4, ½ twice a beat."
            onChange={(amount) => onChange({ every: amount })}
          />{" "}
          {every === "1" ? "beat" : "beats"} or
        </>
      )}{" "}
      on{" "}
      <BriefField
        label={`pattern of the ${what}`}
        field={`${field}.pattern`}
        long
        placeholder="a pattern"
        value={pattern}
        hint="A count that begins again by itself: 1 3, or 1 2 3 | 1 2 3 4. Empty for the rate."
        onChange={(text) => onChange({ pattern: text })}
      />
    </>
  );
}
