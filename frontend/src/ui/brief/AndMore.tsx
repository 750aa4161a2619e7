import { BriefSelect } from "./BriefSelect";

/** A part of a sentence that is rarely used: how it is offered, and why one would take it. */
type Offer = { offer: string; why: string };
type Props<T extends Offer> = { label: string; parts: readonly T[]; onChoose: (part: T) => void };

/** “and …”: the parts of a sentence that are not in use; nothing when all are. */
export function AndMore<T extends Offer>({ label, parts, onChoose }: Props<T>) {
  if (parts.length === 0) return null;
  return (
    <>
      , and{" "}
      <BriefSelect
        label={label}
        field="more"
        value=""
        choices={[
          { value: "", label: "…", why: "What is rarely used, added to the sentence." },
          ...parts.map((part) => ({ value: part.offer, label: part.offer, why: part.why })),
        ]}
        onChange={(offer) => {
          const part = parts.find((one) => one.offer === offer);
          if (part) onChoose(part);
        }}
      />
    </>
  );
}
