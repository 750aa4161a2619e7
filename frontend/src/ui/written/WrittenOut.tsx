import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Ref, useId } from "react";
import type { Drill, Part } from "../../api/client";
import { choicesQuery, liesQuery } from "../../api/queries";
import { instrumentOf } from "../instrumentOf";
import { keptChoice } from "../keptChoice";
import { useLastGood } from "../useLastGood";
import { Engraved, type WrittenHandle } from "./Engraved";
import { Lying } from "./Lying";

type Form = "notes" | "tab" | "both";
/** What is shown of a drill besides its rail; nothing until someone asks. */
type Shown = { form: Form | "no"; lying: boolean };

const USUAL: Shown = { form: "no", lying: false };
const useShown = keptChoice<Shown>("written", USUAL);

type Props = {
  drill: Drill;
  part?: Part | null | undefined;
  /** Where it is lit while it is played. */
  ref?: Ref<WrittenHandle>;
};

/** What a drill can be written as, what is chosen of that, and where it lies. */
function useWritten(drill: Drill) {
  const [shown, setShown] = useShown();
  const { data: choices } = useQuery(choicesQuery);
  const asked = useQuery({
    ...liesQuery(drill),
    placeholderData: keepPreviousData,
    enabled: shown.form !== "no" || shown.lying,
  });
  const lies = useLastGood(asked.data);
  const instrument = choices && instrumentOf(drill, choices);
  const has = lies?.forms ?? (instrument?.strings ? ["notes", "tab", "both"] : ["notes"]);
  const forms = choices?.staves.filter((one) => has.some((form) => form === one.value)) ?? [];
  // What another instrument cannot have is shown as what it can.
  const form = forms.some((one) => one.value === shown.form) || shown.form === "no" ? shown.form : "notes";
  return { shown: { ...shown, form }, change: setShown, forms, lies, instrument };
}

/** Whether and how a drill is written out, and whether it is shown where it lies: for who reads notation. */
export function WrittenWords({ drill }: Pick<Props, "drill">) {
  const id = useId();
  const { shown, change, forms, instrument } = useWritten(drill);
  const place = instrument?.strings
    ? "where it lies on the neck"
    : instrument?.breathes
      ? "the names that sound"
      : "where it lies on the keys";
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <label htmlFor={id} className="text-soft">
        Written out:
      </label>
      <select
        id={id}
        className="brief-word"
        value={shown.form}
        onChange={(event) => change({ ...shown, form: event.target.value as Shown["form"] })}
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
          onChange={(event) => change({ ...shown, lying: event.target.checked })}
        />
        {place}
      </label>
    </div>
  );
}

/** A drill written out, and where it lies, as far as someone asked for it; nothing until then. */
export function Written({ drill, part, ref }: Props) {
  const { shown, lies } = useWritten(drill);
  if (shown.form === "no" && !shown.lying) return null;
  return (
    <section aria-label="Written out">
      {shown.form !== "no" && <Engraved drill={drill} part={part ?? undefined} form={shown.form} ref={ref} />}
      {shown.lying && lies && <Lying lies={lies} />}
    </section>
  );
}

/** The words and what they ask for, one under the other. */
export function WrittenOut(props: Props) {
  return (
    <div className="mt-2">
      <WrittenWords drill={props.drill} />
      <Written {...props} />
    </div>
  );
}
