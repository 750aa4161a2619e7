import type { Tool } from "./useTool";

const GRIDS = [
  [2, "halves of a beat"],
  [3, "thirds of a beat"],
  [4, "quarters of a beat"],
] as const;

/** How places are pressed on the rail, and how fine. */
export function Pressing({ onUse }: { onUse: (tool: Tool) => void }) {
  return (
    <p className="text-soft text-sm flex flex-wrap items-center gap-x-2 mt-1">
      Press a place on the rail to sound or silence it; more places:
      {GRIDS.map(([count, name]) => (
        <button
          key={count}
          type="button"
          className="text-primary font-semibold cursor-pointer"
          onClick={() => onUse({ tool: "grid", count })}
        >
          {name}
        </button>
      ))}
    </p>
  );
}
