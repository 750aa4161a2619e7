import type { ReactNode } from "react";
import type { Choices, Drill } from "../../../api/client";
import type { Tool } from "../useTool";

export type Change = (changed: Partial<Drill>, word: string) => void;
export type PartProps = { drill: Drill; choices: Choices; onChange: Change };

/** Which clause of the brief a part belongs to: what belongs together is said together. */
export type Clause = "time" | "hands" | "accents" | "body" | "sound" | "instrument" | "learning";

/** A part of the brief that is rarely used: how it is offered, whether it is in use, and its words then. */
export type Part = {
  offer: string;
  why: string;
  clause: Clause;
  isUsed: (drill: Drill) => boolean;
  /** Whether it makes sense for the instrument; always, unless said. */
  fits?: (drill: Drill, choices: Choices) => boolean;
  /** What it begins with; a tool of the server where that depends on how the drill is laid. */
  start: Partial<Drill> | ((choices: Choices, drill: Drill) => Partial<Drill>) | { tool: Tool["tool"] };
  /** Its words; a part that has a sentence of its own elsewhere has none here. */
  words?: (props: PartProps) => ReactNode;
};
