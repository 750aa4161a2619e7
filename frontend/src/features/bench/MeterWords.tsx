import { useState } from "react";
import type { Choices } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";

const OWN = {
  value: "own",
  label: "a meter of your own",
  why: "Any meter over 2, 4, 8 or 16, with its groups; or two that take turns.",
};

type Props = { meter: string; choices: Choices; onChange: (meter: string) => void };

/** The meter: one of those in use, or one that is typed. */
export function MeterWords({ meter, choices, onChange }: Props) {
  const isReady = choices.meters.some((one) => one.value === meter);
  const [wantsOwn, setWantsOwn] = useState(!isReady);
  const own = wantsOwn || !isReady;
  return (
    <>
      <BriefSelect
        label="meter"
        field="meter"
        value={own ? OWN.value : meter}
        choices={[...choices.meters, OWN]}
        onChange={(value) => {
          setWantsOwn(value === OWN.value);
          if (value !== OWN.value) onChange(value);
        }}
      />
      {own && (
        <>
          {" "}
          <BriefField
            label="your own meter"
            field="meter"
            value={meter}
            hint="7/4; 11/8 (3+3+3+2); 3/4 -2/16. 4/4 | 7/8 (2+2+3) take turns bar by bar, with ; leg by leg."
            onChange={onChange}
          />
        </>
      )}
    </>
  );
}
