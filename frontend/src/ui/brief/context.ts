import { createContext, useContext, useEffect, useId } from "react";

export type Refused = { message: string; field: string | null };

/** What the words of one brief share: the line under it, and which field was refused. */
export type BriefState = {
  setHint: (hint: string) => void;
  /** What the server says of a field while it is typed: its bounds, and what to look out for. */
  hints: Readonly<Record<string, string>>;
  /** A word says that what was typed into it is refused, or no longer. */
  refuse: (field: string, message: string | null) => void;
  refused: Refused | null;
  refusalId: string;
  /** A control takes the sentence of a field upon itself while it is there; returns how it gives that back. */
  claim: (field: string, control: string) => () => void;
  /** Whether a control is the one that shows the sentence of its field: of several, the last. */
  shows: (field: string, control: string) => boolean;
};

export const BriefContext = createContext<BriefState>({
  setHint: () => {},
  hints: {},
  refuse: () => {},
  refused: null,
  refusalId: "",
  claim: () => () => {},
  shows: () => false,
});

/** What a control says of its field while that is refused: its attributes, and the sentence where it stands beside it. */
export type Refusing = {
  attributes: { "aria-invalid"?: true; "aria-describedby"?: string };
  sentence: string;
};

const FINE: Refusing = { attributes: {}, sentence: "" };

/** What a control whose field may have been refused has to say; an error stands once, beside its word. */
export function useRefusal(field: string): Refusing {
  const { refused, refusalId, claim, shows } = useContext(BriefContext);
  const control = useId();
  useEffect(() => claim(field, control), [claim, field, control]);
  if (refused?.field !== field) return FINE;
  return {
    attributes: { "aria-invalid": true, "aria-describedby": refusalId },
    sentence: shows(field, control) ? refused.message : "",
  };
}
