import { useState } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Hands = Drill["hands"];
const NONE = { value: "none", label: "Any hand", why: "No hand is written: the student chooses." };
const OWN = {
  value: "own",
  label: "Your own cycle",
  why: "Write the symbols with spaces: R L R R L L, p i m a, 1 2 3 1 2 3 4; - is a slurred note: T -.",
};

const PLACE = {
  value: "place",
  label: "The arm swings",
  why: "By place: the slot says which way, and where nothing sounds the stroke goes through the air.",
};

const ECONOMY = {
  value: "economy",
  label: "Economy picking",
  why: "Alternate on a string; to the next string the pick goes on the way it has to go. It needs strings.",
};

type Props = {
  hands: Hands;
  choices: Choices;
  /** Cycles that are usual on the instrument: they are offered first. */
  usual: readonly string[];
  onChange: (hands: Hands) => void;
};

/** Which hand, pick direction or syllable plays each note, in words. */
export function HandWords({ hands, choices, usual, onChange }: Props) {
  const cycle = hands.kind === "by_order" ? hands.cycle.join(" ") : "";
  const isReady = choices.cycles.some((one) => one.value === cycle);
  const [wantsOwn, setWantsOwn] = useState(hands.kind === "by_order" && !isReady);
  const own = hands.kind === "by_order" && (wantsOwn || !isReady);
  const restart = hands.kind === "by_order" ? hands.restart : "never";
  const byOrder = (text: string): Hands => ({
    kind: "by_order",
    cycle: text.split(/\s+/).filter((symbol) => symbol),
    restart,
  });
  return (
    <>
      <BriefSelect
        label="hands"
        field="hands.kind"
        value={shownAs(hands, own, cycle)}
        choices={[
          NONE,
          PLACE,
          ECONOMY,
          ...[...choices.cycles]
            .sort((one, other) => Number(usual.includes(other.value)) - Number(usual.includes(one.value)))
            .map((one) => ({
              ...one,
              label: one.label.replace(/^./, (first) => first.toUpperCase()),
            })),
          OWN,
        ]}
        onChange={(value) => {
          setWantsOwn(value === "own");
          if (value === "none") onChange({ kind: "none" });
          else if (value === "economy") onChange({ kind: "economy", lead: "down" });
          else if (value === "place") onChange({ kind: "by_place", lead: "down", odd: "through" });
          else onChange(byOrder(value === "own" ? cycle || "R L" : value));
        }}
      />
      {own && (
        <>
          {" "}
          <BriefField
            label="your own hand cycle"
            field="hands.cycle"
            value={cycle}
            hint={OWN.why}
            onChange={(text) => onChange(byOrder(text))}
          />
        </>
      )}
      {hands.kind === "by_place" && (
        <>
          {" "}
          <BriefSelect
            label="way on the beat"
            field="hands.lead"
            value={hands.lead}
            choices={choices.leads}
            onChange={(lead) => onChange({ ...hands, lead: lead as typeof hands.lead })}
          />{" "}
          and{" "}
          <BriefSelect
            label="swing in threes"
            field="hands.odd"
            value={hands.odd}
            choices={choices.odd_schools}
            onChange={(odd) => onChange({ ...hands, odd: odd as typeof hands.odd })}
          />
        </>
      )}
      {hands.kind === "by_order" && (
        <>
          {" "}
          that{" "}
          <BriefSelect
            label="restart of the hand cycle"
            field="hands.restart"
            value={hands.restart}
            choices={choices.restarts}
            onChange={(value) => onChange({ ...hands, restart: value as typeof hands.restart })}
          />
        </>
      )}
    </>
  );
}

function shownAs(hands: Hands, own: boolean, cycle: string): string {
  switch (hands.kind) {
    case "none":
    case "economy":
      return hands.kind;
    case "by_place":
      return "place";
    case "by_order":
      return own ? "own" : cycle;
  }
}
