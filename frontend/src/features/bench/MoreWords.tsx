import { FindMore } from "../../ui/brief/FindMore";
import { BODY_PARTS } from "./more/bodyParts";
import { LEARNING_PARTS } from "./more/learningParts";
import type { Clause, Part, PartProps } from "./more/part";
import { SOUND_PARTS } from "./more/soundParts";
import { TIME_PARTS } from "./more/timeParts";
import { SELDOM } from "./seldom";
import { useTool } from "./useTool";

const PARTS: readonly Part[] = [...SOUND_PARTS, ...TIME_PARTS, ...BODY_PARTS, ...LEARNING_PARTS];

const usedIn = (drill: PartProps["drill"], clause: Clause) =>
  PARTS.filter((part) => part.clause === clause && part.words && part.isUsed(drill));

/** Whether a clause says anything. */
export const isSaid = (drill: PartProps["drill"], clause: Clause) => usedIn(drill, clause).length > 0;

/** The parts of a clause that are in use; `begins` where nothing stands before them. */
export function PartWords({
  clause,
  begins = false,
  ...props
}: PartProps & { clause: Clause; begins?: boolean }) {
  return usedIn(props.drill, clause).map((part, index) => (
    <span key={part.offer}>
      {(index > 0 || !begins) && ", "}
      {part.words?.(props)}
    </span>
  ));
}

type MoreProps = PartProps & {
  hasClosing: boolean;
  /** Words that are usual, and said all the same; and how one asks for them. */
  asked: ReadonlySet<string>;
  onAsk: (name: string) => void;
};

/** "and more …": the parts of the drill that are not in use, and what came of one that had to be worked out. */
export function MoreWords({ hasClosing, asked, onAsk, ...props }: MoreProps) {
  const use = useTool(props.drill, props.onChange);
  const usual = SELDOM.filter(
    (one) => one.has(props.drill, hasClosing) && one.isUsual(props.drill) && !asked.has(one.offer),
  );
  const unused = PARTS.filter(
    (part) => !part.isUsed(props.drill) && (part.fits?.(props.drill, props.choices) ?? true),
  );
  return (
    <>
      <FindMore<(typeof usual)[number] | Part>
        parts={[...usual, ...unused]}
        onChoose={(part) => {
          if (!("start" in part)) return onAsk(part.offer);
          const { start, offer } = part;
          if ("tool" in start) use.mutate(start);
          else props.onChange(typeof start === "function" ? start(props.choices, props.drill) : start, offer);
        }}
      />
      {use.data && use.data.drill === props.drill && (
        <p role="status" className="text-soft text-base">
          {use.data.told.join(" ")}
        </p>
      )}
      {use.isError && <p role="alert">{use.error.message}</p>}
    </>
  );
}
