import { useState } from "react";

/** The last answer that there was: a refusal of what is typed now leaves it standing. */
export function useLastGood<T>(answer: T | undefined): T | undefined {
  const [last, setLast] = useState(answer);
  if (answer !== undefined && answer !== last) setLast(answer);
  return answer ?? last;
}
