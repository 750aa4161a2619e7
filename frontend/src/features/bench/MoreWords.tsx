import type { ReactNode } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { SwingWords } from "./SwingWords";

type Change = (changed: Partial<Drill>, word: string) => void;
type Props = { drill: Drill; choices: Choices; onChange: Change };

/** A part of the brief that is rarely used: how it is offered, whether it is in use, and its words then. */
type Part = {
  offer: string;
  why: string;
  isUsed: (drill: Drill) => boolean;
  start: Partial<Drill>;
  words: (props: Props) => ReactNode;
};

const FOLDED = [
  { value: "yes", label: "folded into the range", why: "Notes out of range are moved by octaves." },
  { value: "no", label: "as written", why: "Notes out of range are told." },
];

const PARTS: Part[] = [
  {
    offer: "swing",
    why: "The first note of each pair is longer.",
    isUsed: (drill) => drill.swing.ratio !== "1",
    start: { swing: { ratio: "2", on: 2 } },
    words: ({ drill, choices, onChange }) => (
      <SwingWords swing={drill.swing} choices={choices} onChange={(swing) => onChange({ swing }, "swing")} />
    ),
  },
  {
    offer: "fingering",
    why: "String and fret by least movement; on keys the usual fingers.",
    isUsed: (drill) => drill.fingering !== "none",
    start: { fingering: "usual" },
    words: ({ drill, choices, onChange }) => (
      <BriefSelect
        label="fingering"
        field="fingering"
        value={drill.fingering}
        choices={choices.fingerings}
        onChange={(value) => onChange({ fingering: value as Drill["fingering"] }, "fingering")}
      />
    ),
  },
  {
    offer: "folding into the range",
    why: "What the instrument does not have is moved by octaves.",
    isUsed: (drill) => drill.folded,
    start: { folded: true },
    words: ({ onChange }) => (
      <BriefSelect
        label="notes out of range"
        field="folded"
        value="yes"
        choices={FOLDED}
        onChange={(value) => onChange({ folded: value === "yes" }, "folded")}
      />
    ),
  },
];

/** The parts of a brief that are in use, and "and …" for those that are not. */
export function MoreWords(props: Props) {
  const used = PARTS.filter((part) => part.isUsed(props.drill));
  const unused = PARTS.filter((part) => !part.isUsed(props.drill));
  return (
    <>
      {used.map((part) => (
        <span key={part.offer}>, {part.words(props)}</span>
      ))}
      {unused.length > 0 && (
        <>
          , and{" "}
          <BriefSelect
            label="and more"
            field="more"
            value=""
            choices={[
              { value: "", label: "…", why: "What is rarely used, added to the sentence." },
              ...unused.map((part) => ({ value: part.offer, label: part.offer, why: part.why })),
            ]}
            onChange={(offer) => {
              const part = unused.find((one) => one.offer === offer);
              if (part) props.onChange(part.start, part.offer);
            }}
          />
        </>
      )}
    </>
  );
}
