import type { Choices, Drill } from "../api/client";

/** What is known of the instrument of a drill. */
export const instrumentOf = (drill: Drill, choices: Choices) =>
  choices.instruments.find((one) => one.value === drill.instrument);
