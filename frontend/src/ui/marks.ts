import type { Mark } from "../api/client";

/** What each mark of a take is called, and its sign beside others: never told by colour alone. */
export const MARK_WORDS: Record<Mark, string> = {
  clean: "Clean",
  shaky: "Shaky",
  near: "Too near to call",
  none: "No verdict",
};
export const MARK_SIGNS: Record<Mark, string> = { clean: "●", shaky: "○", near: "◐", none: "×" };
