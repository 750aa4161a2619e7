import { api, type Drill } from "../api/client";
import { useMadeDrill } from "./useMadeDrill";

const TITLE = "New drill";

/** Makes a drill of the server's own beginnings and opens it; whoever begins one writes its first word next. */
export function useNewDrill() {
  // What is left out here is filled in by the server.
  const made = useMadeDrill((title: string, key) => api.addDrill({ title } as Drill, key), undefined, {
    isNew: true,
  });
  return { ...made, mutate: () => made.mutate(TITLE) };
}
