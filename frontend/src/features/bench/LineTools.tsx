import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, type Drill, type Schemas } from "../../api/client";
import { Problem } from "../../ui/Problem";
import { typedCount } from "./MaterialWords";

type Tool = Schemas["ToolBody"]["tool"];
type Props = { drill: Drill; onChange: (drill: Drill, word: string) => void };

const FOR_ALL: [Tool, string][] = [
  ["double", "Twice as fast"],
  ["halve", "Half as fast"],
];
const FOR_LINES: [Tool, string][] = [
  ["backwards", "Backwards"],
  ["trim", "Cut the last note"],
  ["lengthen", "One note more"],
];

/** What can be done to a drill in one press; each can be undone. */
export function LineTools({ drill, onChange }: Props) {
  const use = useMutation({
    mutationFn: (asked: { tool: Tool; bar?: number; beat?: number }) =>
      api.tool({ drill, bar: 1, beat: 1, ...asked }),
    onSuccess: ({ drill: changed }, { tool }) => onChange(changed, `tool ${tool}`),
  });
  const isLine = drill.material.kind === "line";
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-primary font-semibold">Change it in one press</summary>
      <div className="flex flex-wrap items-center gap-2 mt-2">
        {[...FOR_ALL, ...(isLine ? FOR_LINES : [])].map(([tool, name]) => (
          <button
            key={tool}
            type="button"
            className="button button-small"
            disabled={use.isPending}
            onClick={() => use.mutate({ tool })}
          >
            {name}
          </button>
        ))}
        {isLine && <Arrive onUse={(bar, beat) => use.mutate({ tool: "arrive", bar, beat })} />}
      </div>
      {use.isError && <Problem error={use.error} />}
    </details>
  );
}

/** The line starts so late that what follows it falls on a beat. */
function Arrive({ onUse }: { onUse: (bar: number, beat: number) => void }) {
  const [bar, setBar] = useState("2");
  const [beat, setBeat] = useState("1");
  const names = useId();
  const field = (name: string, value: string, set: (text: string) => void) => (
    <label htmlFor={`${names}-${name}`} className="flex items-center gap-1">
      {name}
      <input
        id={`${names}-${name}`}
        className="field w-16"
        inputMode="numeric"
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(typedCount(bar), typedCount(beat));
      }}
    >
      <button type="submit" className="button button-small">
        Let it arrive on
      </button>
      {field("bar", bar, setBar)}
      {field("beat", beat, setBeat)}
    </form>
  );
}
