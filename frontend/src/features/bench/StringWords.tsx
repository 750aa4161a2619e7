import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { typedCount } from "../../ui/brief/typedCount";

type Material = Drill["material"];
type Picked = Extract<Material, { kind: "picked" }>;
type FingerOrder = Extract<Material, { kind: "finger_order" }>;

const OWN = "own";

type PickedProps = { picked: Picked; choices: Choices; onChange: (picked: Picked) => void };

/** Fingers over the strings of chords. */
export function PickedWords({ picked, choices, onChange }: PickedProps) {
  const known = choices.picks.some((one) => one.value === picked.pattern);
  return (
    <>
      <BriefField
        label="chords"
        field="material.chords"
        long
        value={picked.chords}
        hint="Am, F, G/B; | bar line; another grip than the usual one is typed: C=x32010, thickest string first."
        onChange={(chords) => onChange({ ...picked, chords })}
      />
      :{" "}
      <BriefSelect
        label="ready picking pattern"
        field="material.pattern.ready"
        value={known ? picked.pattern : OWN}
        choices={known ? choices.picks : [...choices.picks, { value: OWN, label: "its own", why: "" }]}
        onChange={(pattern) => pattern !== OWN && onChange({ ...picked, pattern })}
      />
      ,{" "}
      <BriefField
        label="picking pattern"
        field="material.pattern"
        long
        value={picked.pattern}
        hint="p i m a; p5 names its string, p+m together; bass, strum, roll, x damped, r rest, - holds, >p accent."
        onChange={(pattern) => onChange({ ...picked, pattern })}
      />{" "}
      that{" "}
      <BriefSelect
        label="when the pattern begins again"
        field="material.again"
        value={picked.again}
        choices={choices.agains}
        onChange={(again) => onChange({ ...picked, again: again as Picked["again"] })}
      />
      , the thumb on{" "}
      <BriefSelect
        label="strings of the thumb"
        field="material.bass"
        value={picked.bass}
        choices={choices.basses}
        onChange={(bass) => onChange({ ...picked, bass: bass as Picked["bass"] })}
      />
      , in the rhythm{" "}
      <BriefField
        label="rhythm of the pattern"
        field="material.rhythm"
        long
        value={picked.rhythm}
        placeholder="of its slots"
        hint="Empty: one word on each slot. Or a count that says when: 1 & (2) & 3 & 4."
        onChange={(rhythm) => onChange({ ...picked, rhythm })}
      />
    </>
  );
}

type OrderProps = { order: FingerOrder; choices: Choices; onChange: (order: FingerOrder) => void };

/** The four fingers of the left hand in an order, where on the neck, and what is slurred. */
export function FingerOrderWords({ order, choices, onChange }: OrderProps) {
  const number = (field: "string" | "position" | "shift" | "passes", label: string, hint: string) => (
    <CountField
      label={label}
      field={`material.${field}`}
      value={order[field]}
      signed={field === "shift"}
      hint={hint}
      onChange={(count) => onChange({ ...order, [field]: count })}
    />
  );
  return (
    <>
      <BriefSelect
        label="finger order"
        field="material.order"
        value={order.order}
        choices={choices.finger_orders}
        onChange={(value) => onChange({ ...order, order: value })}
      />{" "}
      <BriefSelect
        label="way across the strings"
        field="material.path"
        value={order.path}
        choices={choices.string_paths}
        onChange={(path) => onChange({ ...order, path: path as FingerOrder["path"] })}
      />
      {order.path === "one" && <> , string {number("string", "string", "1 is the thinnest.")}</>} from fret{" "}
      {number("position", "position", "The fret under the first finger, 1 to 12.")},{" "}
      {number("passes", "times", "How often it is played.")} times, moving on by{" "}
      {number("shift", "frets to move on", "After each time; below 0 towards the nut.")} frets,{" "}
      <BriefSelect
        label="slurs of the left hand"
        field="material.legato"
        value={order.legato}
        choices={choices.legatos}
        onChange={(legato) => onChange({ ...order, legato: legato as FingerOrder["legato"] })}
      />
      {order.legato !== "none" && (
        <>
          {" "}
          on notes{" "}
          <BriefField
            label="notes that are slurred"
            field="material.slurred"
            value={order.slurred.join(" ")}
            hint="Which of the four, with spaces: 2 4. The first on a string is always struck."
            onChange={(text) =>
              onChange({
                ...order,
                slurred: text
                  .split(/\s+/)
                  .filter((one) => one)
                  .map((one) => typedCount(one)),
              })
            }
          />
        </>
      )}
    </>
  );
}
