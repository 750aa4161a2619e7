import { keptChoice } from "./keptChoice";

/** Whether pictures are shown from the student's side, as in a mirror; one choice for the whole browser. */
export const useOpposite = keptChoice("opposite", false);
