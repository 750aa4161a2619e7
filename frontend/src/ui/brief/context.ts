import { createContext, useContext } from "react";

export type Refused = { message: string; field: string | null };

/** What the words of one brief share: the line under it, and which field was refused. */
export type BriefState = {
  setHint: (hint: string) => void;
  /** What the server says of a field while it is typed: its bounds, and what to look out for. */
  hints: Readonly<Record<string, string>>;
  /** A word says that what was typed into it is refused, or no longer. */
  refuse: (field: string, message: string | null) => void;
  refusedField: string | null;
  refusalId: string;
};

export const BriefContext = createContext<BriefState>({
  setHint: () => {},
  hints: {},
  refuse: () => {},
  refusedField: null,
  refusalId: "",
});

/** The attributes of a control whose field may have been refused. */
export function useRefusal(field: string): { "aria-invalid"?: true; "aria-describedby"?: string } {
  const { refusedField, refusalId } = useContext(BriefContext);
  return refusedField === field ? { "aria-invalid": true, "aria-describedby": refusalId } : {};
}
