import { keptChoice } from "./keptChoice";

/** Whether the guide was read to its end: until then it stands among the places. */
export const useGuideRead = keptChoice("guide read", false);
