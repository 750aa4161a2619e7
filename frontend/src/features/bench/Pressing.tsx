import type { Tool } from "./useTool";

const GRIDS = [
  [2, "halves of a beat"],
  [3, "thirds of a beat"],
  [4, "quarters of a beat"],
] as const;

/** What a press on a place of the rail does. */
export type Press = "press" | "hit" | "ornament" | "finger" | "phrase";

const PRESSES: Record<Press, string> = {
  press: "sound or silence it",
  hit: "make it a hit: full, light, none",
  ornament: "hammer, pull, slide or strike it",
  finger: "give it the next finger",
  phrase: "begin a phrase with it, or no more",
};

type Props = {
  /** Whether the notes are pressed too; and whether a beat that is pressed takes its next cell. */
  notes: boolean;
  cells: boolean;
  press: Press;
  onPress: (press: Press) => void;
  onUse: (tool: Tool) => void;
};

/** What a press on the rail does, and how fine its places are. */
export function Pressing({ notes, cells, press, onPress, onUse }: Props) {
  const offered = (Object.keys(PRESSES) as Press[]).filter((one) => notes || one !== "press");
  return (
    <p className="text-soft text-sm leading-7 mt-1">
      Press a place on the rail to{" "}
      <select
        className="brief-word"
        aria-label="what a press on the rail does"
        value={press}
        onChange={(event) => onPress(event.target.value as Press)}
      >
        {offered.map((one) => (
          <option key={one} value={one}>
            {one === "press" && cells ? "let its beat take the next cell" : PRESSES[one]}
          </option>
        ))}
      </select>
      , under it for the click. With the arrow keys: Enter, H for a hit, O for an ornament, F for a finger, B
      where a phrase begins, C for the click.
      {notes && !cells && (
        <>
          {" "}
          More places:{" "}
          {GRIDS.map(([count, name]) => (
            <button
              key={count}
              type="button"
              className="text-primary font-semibold cursor-pointer mr-2"
              onClick={() => onUse({ tool: "grid", count })}
            >
              {name}
            </button>
          ))}
        </>
      )}
    </p>
  );
}
