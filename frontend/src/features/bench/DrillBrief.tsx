import { type ReactNode, useMemo, useState } from "react";
import type { Choices, Drill, Reading } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { ClickWords } from "../../ui/brief/ClickWords";
import type { Refused } from "../../ui/brief/context";
import { drillHints } from "../../ui/brief/kinds";
import { instrumentOf } from "../../ui/instrumentOf";
import { AccentWords } from "./AccentWords";
import { Divisions } from "./Divisions";
import { HandWords } from "./HandWords";
import { Line } from "./Line";
import { MaterialWords } from "./MaterialWords";
import { MeterWords } from "./MeterWords";
import { isSaid, MoreWords, PartWords } from "./MoreWords";
import { SecondWords } from "./SecondWords";
import { Seldom, SeldomContext } from "./seldom";
import { Warnings } from "./Warnings";

/** Where no arm swings these are not said; written on, they are there again when one does. */
const LAWS_OF_THE_ARM: readonly string[] = ["by_place", "economy"];
const NO_HANDS: Drill["hands"] = { kind: "none" };
const withoutArm = (choices: Choices): Choices => ({
  ...choices,
  hands: choices.hands.filter((law) => !LAWS_OF_THE_ARM.includes(law.value)),
});

type Props = {
  drill: Drill;
  choices: Choices;
  /** What the drill was read as; null until it could be read. */
  reading: Pick<Reading, "sign" | "own_rhythm" | "has_closing" | "warnings" | "division_names"> | null;
  refusal: Refused | null;
  onChange: (drill: Drill, word: string) => void;
};

const TIMES = [1, 2, 3, 4, 6, 8, 12, 16].map((times) => ({
  value: String(times),
  label: times === 1 ? "once" : times === 2 ? "twice" : `${times} times`,
  why: "How often it is played in a pass; each time starts as the seam says.",
}));

/** How often a rhythm that brings its own divisions is played: a leg for each time. */
function Times({ legs, onChange }: { legs: Drill["legs"]; onChange: (legs: Drill["legs"]) => void }) {
  const now = String(legs.length);
  const known = TIMES.some((one) => one.value === now);
  return (
    <BriefSelect
      label="times"
      field="legs"
      value={now}
      choices={known ? TIMES : [...TIMES, { value: now, label: `${now} times`, why: "" }]}
      onChange={(times) =>
        onChange(Array.from({ length: Number(times) }, () => ({ division: "1", following: [] })))
      }
    />
  );
}

/** Lines of what is rarely used, and their quiet words. */
const CLAUSES = [
  ["body", "meanwhile"],
  ["sound", "sound"],
  ["learning", "to learn it"],
] as const;

/** The drill in lines, a quiet word before each; their words are the controls, and the usual is not said. */
export function DrillBrief({ drill, choices, reading, refusal, onChange }: Props) {
  const word =
    <F extends keyof Drill>(field: F) =>
    (value: Drill[F]) =>
      onChange({ ...drill, [field]: value }, field);
  const play = (material: Drill["material"]) => {
    const isNew = material.kind !== drill.material.kind;
    const along = isNew ? choices.materials.find((one) => one.value === material.kind)?.hands : null;
    onChange({ ...drill, material, hands: along ?? drill.hands }, "material");
  };
  const select = (
    field: "seam" | "closing" | "instrument",
    label: string,
    from: Choices["seams"],
  ): ReactNode => (
    <BriefSelect
      label={label}
      field={field}
      value={drill[field]}
      choices={from}
      onChange={(value) => onChange({ ...drill, [field]: value }, field)}
    />
  );
  const instrument = instrumentOf(drill, choices);
  const hasArm = !instrument?.breathes && drill.material.kind !== "long_notes";
  const hands = hasArm || !LAWS_OF_THE_ARM.includes(drill.hands.kind) ? drill.hands : NO_HANDS;
  // A picked pattern names its fingers, and of two hands each plays its own row.
  const saysHands =
    hands.kind !== "none" || (drill.material.kind !== "picked" && drill.second.plays.kind === "none");
  const parts = {
    drill,
    choices,
    onChange: (part: Partial<Drill>, name: string) => onChange({ ...drill, ...part }, name),
  };
  const [asked, setAsked] = useState<ReadonlySet<string>>(new Set());
  const seldom = useMemo(() => ({ drill, asked }), [drill, asked]);
  const warned = (line: Reading["warnings"][number]["line"]) => (
    <Warnings
      warnings={(reading?.warnings ?? []).filter((one) => one.line === line)}
      drill={drill}
      onChange={(mended) => onChange(mended, "material")}
    />
  );
  const names = reading?.division_names ?? {};
  return (
    <Brief label="The brief" refusal={refusal} hints={drillHints(drill, choices)}>
      <SeldomContext value={seldom}>
        <Line name="notes" warnings={warned("notes")}>
          <MaterialWords material={drill.material} choices={choices} onChange={play} />
          {reading?.has_closing && (
            <Seldom name="last note" field="closing">
              , the closing tonic {select("closing", "closing tonic", choices.closings)}
            </Seldom>
          )}
        </Line>
        <Line name="rhythm">
          {reading?.own_rhythm ? (
            <Times legs={drill.legs} onChange={word("legs")} />
          ) : (
            <Divisions
              legs={drill.legs}
              divisions={choices.divisions}
              names={names}
              onChange={word("legs")}
            />
          )}{" "}
          in <MeterWords meter={drill.meter} choices={choices} onChange={word("meter")} />
          <Seldom name="how stages begin" field="seam">
            , each {select("seam", "seam: what happens between legs", choices.seams)}
          </Seldom>
          <PartWords clause="time" {...parts} />
        </Line>
        {(saysHands || isSaid(drill, "hands")) && (
          <Line name="hand">
            {saysHands && (
              <HandWords
                hands={hands}
                choices={hasArm ? choices : withoutArm(choices)}
                usual={instrument?.cycles ?? []}
                onChange={word("hands")}
              />
            )}
            <PartWords clause="hands" begins={!saysHands} {...parts} />
          </Line>
        )}
        <Line name="accents">
          <AccentWords accents={drill.accents} choices={choices} onChange={word("accents")} />
          <PartWords clause="accents" {...parts} />
        </Line>
        <SecondWords {...parts} warnings={warned("left hand")} />
        {CLAUSES.map(
          ([clause, name]) =>
            isSaid(drill, clause) && (
              <Line key={clause} name={name}>
                <PartWords clause={clause} begins {...parts} />
              </Line>
            ),
        )}
        <Line name="click">
          <ClickWords click={drill.click} choices={choices} onChange={word("click")} /> at{" "}
          <AmountField
            label="tempo in bpm"
            field="bpm"
            what="bpm"
            before={`${reading?.sign ?? ""} = `}
            exact={drill.bpm}
            hint="1 to 1000; halves and fractions too: 84½."
            onChange={word("bpm")}
          />
          , for {select("instrument", "instrument", choices.instruments)}
          <PartWords clause="instrument" {...parts} />
        </Line>
        <MoreWords
          {...parts}
          hasClosing={reading?.has_closing ?? false}
          asked={asked}
          onAsk={(name) => setAsked(new Set([...asked, name]))}
        />
      </SeldomContext>
    </Brief>
  );
}
