import { AndMore } from "../../ui/brief/AndMore";
import { BODY_PARTS } from "./more/bodyParts";
import { LEARNING_PARTS } from "./more/learningParts";
import type { Clause, Part, PartProps } from "./more/part";
import { SOUND_PARTS } from "./more/soundParts";
import { TIME_PARTS } from "./more/timeParts";
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

/** "and …": the parts of the brief that are not in use, and what came of one that had to be worked out. */
export function MoreWords(props: PartProps) {
  const use = useTool(props.drill, props.onChange);
  const unused = PARTS.filter(
    (part) => !part.isUsed(props.drill) && (part.fits?.(props.drill, props.choices) ?? true),
  );
  return (
    <>
      <AndMore
        label="and more"
        parts={unused}
        onChoose={({ start, offer }) => {
          if ("tool" in start) use.mutate(start);
          else props.onChange(typeof start === "function" ? start(props.choices, props.drill) : start, offer);
        }}
      />
      .
      {use.data && use.data.drill === props.drill && (
        <span role="status" className="block text-soft text-base">
          {use.data.told.join(" ")}
        </span>
      )}
      {use.isError && (
        <span role="alert" className="block">
          {use.error.message}
        </span>
      )}
    </>
  );
}
