import { useState } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { Seldom } from "./seldom";

type Hands = Drill["hands"];
const capital = (text: string) => text.replace(/^./, (first) => first.toUpperCase());

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
  // A law that is told by its cycle is offered by its usual cycles, and as one's own; the others by their names.
  const cycles = choices.hands.find((one) => one.value === "by_order");
  const laws = choices.hands.filter((one) => one !== cycles);
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
          ...laws.map((one) => ({ ...one, label: capital(one.label) })),
          ...[...choices.cycles]
            .sort((one, other) => Number(usual.includes(other.value)) - Number(usual.includes(one.value)))
            .map((one) => ({ ...one, label: capital(one.label) })),
          { value: "own", label: capital(cycles?.label ?? ""), why: cycles?.why ?? "" },
        ]}
        onChange={(value) => {
          setWantsOwn(value === "own");
          const law = laws.find((one) => one.value === value);
          if (law) onChange(law.fresh);
          else if (value !== "own") onChange(byOrder(value));
          else onChange(cycle || !cycles ? byOrder(cycle) : cycles.fresh);
        }}
      />
      {own && (
        <>
          {" "}
          <BriefField
            label="your own hand cycle"
            field="hands.cycle"
            value={cycle}
            hint={cycles?.why}
            onChange={(text) => onChange(byOrder(text))}
          />
        </>
      )}
      {(hands.kind === "by_place" || hands.kind === "economy") && (
        <>
          {" "}
          <BriefSelect
            label={hands.kind === "by_place" ? "way on the beat" : "first stroke"}
            field="hands.lead"
            value={hands.lead}
            choices={choices.leads}
            onChange={(lead) => onChange({ ...hands, lead: lead as typeof hands.lead })}
          />
        </>
      )}
      {hands.kind === "letters" && <LetterWords hands={hands} choices={choices} onChange={onChange} />}
      {hands.kind === "articulated" && (
        <>
          :{" "}
          <BriefSelect
            label="articulation pattern"
            field="hands.pattern"
            value={hands.pattern}
            choices={choices.tonguings.map((one) => ({
              ...one,
              label: one.cycle ? `${one.label} (${one.cycle})` : one.label,
            }))}
            onChange={(pattern) => onChange({ ...hands, pattern })}
          />{" "}
          that{" "}
          <BriefSelect
            label="restart of the pattern"
            field="hands.restart"
            value={hands.restart}
            choices={choices.restarts}
            onChange={(restart) => onChange({ ...hands, restart: restart as typeof hands.restart })}
          />
        </>
      )}
      {hands.kind === "by_place" && (
        <>
          {" "}
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
        <Seldom name="pattern begins anew" field="hands.restart">
          {" "}
          that{" "}
          <BriefSelect
            label="restart of the hand cycle"
            field="hands.restart"
            value={hands.restart}
            choices={choices.restarts}
            onChange={(value) => onChange({ ...hands, restart: value as typeof hands.restart })}
          />
        </Seldom>
      )}
    </>
  );
}

type Letters = Extract<Hands, { kind: "letters" }>;

/** Hands by place: who leads, or a pattern of the bar. */
function LetterWords({ hands, choices, onChange }: Pick<Props, "choices" | "onChange"> & { hands: Letters }) {
  return (
    <>
      :{" "}
      {hands.pattern.length === 0 && (
        <>
          <BriefSelect
            label="leading hand"
            field="hands.lead"
            value={hands.lead}
            choices={choices.hand_leads}
            onChange={(lead) => onChange({ ...hands, lead: lead as Letters["lead"] })}
          />{" "}
          and{" "}
          <BriefSelect
            label="hands in threes"
            field="hands.odd"
            value={hands.odd}
            choices={choices.odd_schools}
            onChange={(odd) => onChange({ ...hands, odd: odd as Letters["odd"] })}
          />
          , or{" "}
        </>
      )}
      by{" "}
      <BriefField
        label="pattern of the bar"
        field="hands.pattern"
        value={hands.pattern.join(" ")}
        placeholder="a pattern of the bar"
        hint="A symbol for each slot of the bar, silent ones too: R L R R L R L L. Empty for the lead."
        onChange={(text) => onChange({ ...hands, pattern: text.split(/\s+/).filter((one) => one) })}
      />
    </>
  );
}

function shownAs(hands: Hands, own: boolean, cycle: string): string {
  if (hands.kind !== "by_order") return hands.kind;
  return own ? "own" : cycle;
}
