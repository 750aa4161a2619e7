import { useContext } from "react";
import type { Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { BriefContext } from "../../ui/brief/context";

type Count = Extract<Drill["material"], { kind: "count" }>;

/** What becomes of what is moved over the end. */
export const ENDS = [
  { value: "around", label: "wrapped round", why: "What goes over the end comes in at the start." },
  {
    value: "over",
    label: "over the bar line",
    why: "It runs into the next bar; moved earlier it begins as a pickup.",
  },
];

/** A rhythm typed as a count, and moved against the beat. */
export function CountWords({ count, onChange }: { count: Count; onChange: (count: Count) => void }) {
  const { refuse } = useContext(BriefContext);
  const move = (text: string) => {
    const plain = text.trim().replace("−", "-");
    const known = /^[+-]?\d{1,2}$/.test(plain);
    refuse(
      "material.shift",
      known ? null : `“${text}” is not a number of slots. Write 2 for later, -2 for earlier.`,
    );
    if (known) onChange({ ...count, shift: Number(plain) });
  };
  return (
    <>
      <BriefField
        label="rhythm as a count"
        field="material.text"
        long
        value={count.text}
        hint="1 e & a, trip let; (3) rest, >1 accent, ~1 ghost, -2 held, | bar line; 2/5 .2 .3 for five in beat 2."
        onChange={(text) => onChange({ ...count, text })}
      />
      , moved{" "}
      <BriefField
        label="slots it is moved by"
        field="material.shift"
        value={String(count.shift)}
        onChange={move}
      />{" "}
      slots, over{" "}
      <BriefField
        label="second layer"
        field="material.under"
        long
        placeholder="nothing"
        value={count.under}
        hint="A second count under it, for the foot or the other hand; it begins again by itself. Empty for none."
        onChange={(under) => onChange({ ...count, under })}
      />
      {count.shift !== 0 && (
        <>
          {" "}
          <BriefSelect
            label="what happens at the end"
            field="material.around"
            value={count.around ? "around" : "over"}
            choices={ENDS}
            onChange={(value) => onChange({ ...count, around: value === "around" })}
          />
        </>
      )}
    </>
  );
}
