import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Ref, useId, useState } from "react";
import type { Drill, Part } from "../../api/client";
import { choicesQuery, liesQuery } from "../../api/queries";
import { instrumentOf } from "../instrumentOf";
import { keep, kept } from "../kept";
import { useLastGood } from "../useLastGood";
import { Engraved, type WrittenHandle } from "./Engraved";
import { Lying } from "./Lying";

type Form = "notes" | "tab" | "both";
/** What is shown of a drill besides its rail; nothing until someone asks. */
type Shown = { form: Form | "no"; lying: boolean };

const NAME = "written";
const USUAL: Shown = { form: "no", lying: false };

type Props = {
  drill: Drill;
  part?: Part | null | undefined;
  /** Where it is lit while it is played. */
  ref?: Ref<WrittenHandle>;
};

/** A drill written out, for who reads notation: off until it is asked for, and then as it was left. */
export function WrittenOut({ drill, part, ref }: Props) {
  const id = useId();
  const [shown, setShown] = useState<Shown>(() => ({ ...USUAL, ...kept<Shown>(NAME) }));
  const { data: choices } = useQuery(choicesQuery);
  const asked = useQuery({
    ...liesQuery(drill),
    placeholderData: keepPreviousData,
    enabled: shown.form !== "no" || shown.lying,
  });
  const lies = useLastGood(asked.data);
  const change = (to: Partial<Shown>) => {
    const next = { ...shown, ...to };
    setShown(next);
    keep(NAME, next);
  };
  const instrument = choices && instrumentOf(drill, choices);
  const has = lies?.forms ?? (instrument?.strings ? ["notes", "tab", "both"] : ["notes"]);
  const forms = choices?.staves.filter((one) => has.some((form) => form === one.value)) ?? [];
  // What another instrument cannot have is shown as what it can.
  const form = forms.some((one) => one.value === shown.form) || shown.form === "no" ? shown.form : "notes";
  const place = instrument?.strings
    ? "where it lies on the neck"
    : instrument?.breathes
      ? "the names that sound"
      : "where it lies on the keys";
  return (
    <section aria-label="Written out" className="mt-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <label htmlFor={id} className="text-soft">
          Written out:
        </label>
        <select
          id={id}
          className="brief-word"
          value={form}
          onChange={(event) => change({ form: event.target.value as Shown["form"] })}
        >
          <option value="no">not</option>
          {forms.map((one) => (
            <option key={one.value} value={one.value} title={one.why}>
              {one.label}
            </option>
          ))}
        </select>
        <label className="flex items-center gap-2 text-soft">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={shown.lying}
            onChange={(event) => change({ lying: event.target.checked })}
          />
          {place}
        </label>
      </div>
      {form !== "no" && <Engraved drill={drill} part={part ?? undefined} form={form} ref={ref} />}
      {shown.lying && lies && <Lying lies={lies} />}
    </section>
  );
}
