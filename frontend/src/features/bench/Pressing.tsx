import type { Tool } from "./useTool";

const GRIDS = [
  [2, "halves of a beat"],
  [3, "thirds of a beat"],
  [4, "quarters of a beat"],
] as const;

type Props = {
  /** Whether the notes are pressed too, not the click alone. */
  notes: boolean;
  onUse: (tool: Tool) => void;
};

/** How places are pressed on the rail, and how fine. */
export function Pressing({ notes, onUse }: Props) {
  if (!notes)
    return (
      <p className="text-soft text-sm mt-1">
        Press under a note on the rail to let it click there or not (or C, with the arrow keys).
      </p>
    );
  return (
    <p className="text-soft text-sm flex flex-wrap items-center gap-x-2 mt-1">
      Press a place on the rail to sound or silence it, under it for the click; more places:
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
