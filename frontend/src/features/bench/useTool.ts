import { useMutation } from "@tanstack/react-query";
import { api, type Drill, type Schemas } from "../../api/client";

export type Tool = Pick<Schemas["ToolBody"], "tool"> & Partial<Schemas["ToolBody"]>;

/** A tool of the server on the drill as it stands; each use is a step of its own to undo. */
export function useTool(drill: Drill, onChange: (drill: Drill, word: string) => void) {
  return useMutation({
    mutationFn: (asked: Tool) =>
      api.tool({ drill, bar: 1, beat: 1, count: 1, event: 0, value: 16, source: "", ...asked }),
    onSuccess: ({ drill: changed }, { tool }) => onChange(changed, `tool ${tool} ${Date.now()}`),
  });
}
