import { useContext, useEffect, useId, useRef, useState } from "react";
import type { Choice, Drill } from "../../api/client";
import { BriefContext, useRefusal } from "../../ui/brief/context";
import { Refused } from "../../ui/brief/Refused";
import { useClosing } from "../../ui/useClosing";

type Leg = Drill["legs"][number];

const HALVES: readonly string[] = ["½", "0.5", ".5", "half"];
const DIVISION = /^\d{1,2}([:/]\d{1,2})?$/;
const isDivision = (word: string) => HALVES.includes(word) || DIVISION.test(word);
/** More legs than that are written, not replaced one by one. */
const MOST_REPLACED = 12;
const RIGHT = "Use ½, 1 to 16, 3:2 for three in the time of two beats, or 6+5 for beats that take turns.";

const sign = (division: string) => (division === "1/2" ? "½" : division.replace("/", ":"));
const written = (leg: Leg) => [leg.division, ...leg.following].map(sign).join("+");
const legOf = (word: string): Leg => {
  const [division = "", ...following] = word
    .split("+")
    .map((one) => (HALVES.includes(one) ? "1/2" : one.replace(":", "/")));
  return { division, following };
};

type Props = {
  legs: Drill["legs"];
  divisions: readonly Choice[];
  /** What they are, for a screen reader; and the field that a refusal names. */
  what?: string;
  field?: string;
  /** What each is called in the meter: eighths, triplets. */
  names?: Readonly<Record<string, string>>;
  onChange: (legs: Drill["legs"]) => void;
};

/** The divisions of the legs, in order: a word that opens into a row to build them. */
export function Divisions({
  legs,
  divisions,
  what = "divisions",
  field = "legs",
  names = {},
  onChange,
}: Props) {
  const [open, setOpen] = useState(false);
  const { setHint } = useContext(BriefContext);
  const refusal = useRefusal(field);
  const box = useRef<HTMLSpanElement>(null);
  const panel = useId();
  const shown = legs.map(written);
  const named = shown.map((one) => names[one] ?? `${one} a beat`);
  const inBrief = named.length > 12 ? [...shown.slice(0, 11), `… (${shown.length} legs)`] : named;

  useClosing(box, open, () => setOpen(false), "button");

  return (
    <span className="lg:relative" ref={box}>
      <button
        type="button"
        className="brief-word text-left"
        aria-label={`${what}: ${inBrief.join(" → ")}, ${shown.join(", ")} notes per beat`}
        aria-expanded={open}
        aria-controls={panel}
        {...refusal.attributes}
        onClick={() => setOpen(!open)}
        onFocus={() => setHint("One leg for each, in order. Neighbours are the hardest to change between.")}
        onBlur={() => setHint("")}
      >
        {inBrief.join(" → ")}
      </button>
      <Refused sentence={refusal.sentence} />
      {open && (
        <DivisionPanel
          id={panel}
          legs={legs}
          shown={shown}
          divisions={divisions}
          names={names}
          onChange={onChange}
        />
      )}
    </span>
  );
}

type ReplacedProps = {
  number: number;
  shown: string;
  divisions: readonly Choice[];
  /** The division of the leg; empty where it has several, or one that is not offered. */
  value: string;
  onChange: (division: string) => void;
};

/** A leg, and what may take its place. */
function Replaced({ number, shown, divisions, value, onChange }: ReplacedProps) {
  const isOffered = divisions.some((one) => one.value === value);
  return (
    <select
      className="field w-auto"
      aria-label={`leg ${number}`}
      value={isOffered ? value : ""}
      onChange={(event) => onChange(event.target.value)}
    >
      {!isOffered && <option value="">{shown}</option>}
      {divisions.map((one) => (
        <option key={one.value} value={one.value}>
          {one.label}
        </option>
      ))}
    </select>
  );
}

type EachProps = {
  does: string;
  divisions: readonly Choice[];
  names: Readonly<Record<string, string>>;
  onPress: (leg: Leg) => void;
};

/** A button for each division. */
function EachDivision({ does, divisions, names, onPress }: EachProps) {
  return (
    <div className="flex flex-wrap gap-1.5 mb-3">
      {divisions.map((one) => (
        <button
          key={one.value}
          type="button"
          className="button button-small"
          aria-label={`${does} ${one.label} a beat`}
          title={names[one.label]}
          onClick={() => onPress({ division: one.value, following: [] })}
        >
          {one.label}
        </button>
      ))}
    </div>
  );
}

type PanelProps = Props & { id: string; shown: string[] };

function DivisionPanel({ id, legs, shown, divisions, names = {}, onChange }: PanelProps) {
  const text = shown.join(" ");
  const [typed, setTyped] = useState(text);
  const [refused, setRefused] = useState("");
  useEffect(() => {
    setTyped((old) => (refused ? old : text));
  }, [text, refused]);

  const type = (next: string) => {
    setTyped(next);
    const words = next.split(/[\s,→]+/).filter((word) => word);
    const unknown = words.find((word) => !word.split("+").every(isDivision));
    if (unknown || words.length === 0) {
      setRefused(unknown ? `“${unknown}” is not a division. ${RIGHT}` : `Write at least one. ${RIGHT}`);
      return;
    }
    setRefused("");
    onChange(words.map(legOf));
  };
  const change = (next: Drill["legs"]) => {
    setRefused("");
    onChange(next);
  };

  return (
    <fieldset id={id} className="panel" aria-label="Divisions of the legs">
      <p className="mb-1">So many notes a beat all through</p>
      <EachDivision
        does="All through with"
        divisions={divisions}
        names={names}
        onPress={(leg) => change([leg])}
      />
      {legs.length > 1 && legs.length <= MOST_REPLACED && (
        <>
          <p className="mb-1">Each leg in order; another one takes its place</p>
          <div className="flex flex-wrap gap-1.5 mb-3">
            {legs.map((leg, index) => (
              <Replaced
                key={index}
                number={index + 1}
                shown={shown[index] ?? ""}
                divisions={divisions}
                value={leg.following?.length ? "" : leg.division}
                onChange={(division) =>
                  change(legs.map((one, at) => (at === index ? { division, following: [] } : one)))
                }
              />
            ))}
          </div>
        </>
      )}
      <p className="mb-1">Add a leg with so many notes a beat</p>
      <EachDivision
        does="Add a leg with"
        divisions={divisions}
        names={names}
        onPress={(leg) => change([...legs, leg])}
      />
      <label className="block">
        Or write them in order; 6+5 takes turns beat by beat, 3:2 is three in two beats
        <input
          className="field"
          value={typed}
          aria-invalid={refused ? true : undefined}
          onChange={(event) => type(event.target.value)}
        />
      </label>
      {refused && (
        <p role="alert" className="text-error font-semibold">
          {refused}
        </p>
      )}
      <div className="flex flex-wrap gap-1.5 mt-3">
        <button
          type="button"
          className="button button-small"
          disabled={legs.length < 2}
          onClick={() => change(legs.slice(0, -1))}
        >
          Take the last away
        </button>
        <button
          type="button"
          className="button button-small"
          onClick={() => change([...legs, ...legs.slice(0, -1).reverse()])}
        >
          And back again
        </button>
      </div>
    </fieldset>
  );
}
