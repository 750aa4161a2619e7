import type { Drill } from "../../../api/client";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import type { PartProps } from "./part";
import { RateWords } from "./RateWords";

/** Which foot keeps the beat, and when. */
export function FootWords({ drill: { foot }, choices, onChange }: PartProps) {
  const set = (part: Partial<Drill["foot"]>) => onChange({ foot: { ...foot, ...part } }, "foot");
  return (
    <>
      <BriefSelect
        label="foot"
        field="foot.which"
        value={foot.which}
        choices={choices.feet}
        onChange={(which) => set({ which: which as Drill["foot"]["which"] })}
      />
      {foot.which !== "none" && (
        <RateWords
          what="tap of the foot"
          field="foot"
          every={foot.every}
          pattern={foot.pattern}
          onChange={set}
        />
      )}
    </>
  );
}
