import { useContext } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { BriefContext } from "../../ui/brief/context";

type Accents = Drill["accents"];
type Walk = Extract<Accents, { kind: "walk" }>;
type Typed = Extract<Accents, { kind: "typed" }>;
type Level = Typed["cycle"][number];

const SIGNS: Record<Level, string> = { accent: ">", plain: "-", ghost: "o" };

type Props = { accents: Accents; choices: Choices; onChange: (accents: Accents) => void };

/** Which notes are stressed, in words. */
export function AccentWords({ accents, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="accents"
        field="accents.kind"
        value={accents.kind}
        choices={choices.accents}
        onChange={(kind) => onChange(choices.accents.find((one) => one.value === kind)?.fresh ?? accents)}
      />
      {accents.kind === "every_nth" && (
        <>
          :{" "}
          <CountField
            label="notes in a group"
            field="accents.size"
            value={accents.size}
            onChange={(count) => onChange({ ...accents, size: count })}
          />
          , counted so that it{" "}
          <BriefSelect
            label="restart of the groups"
            field="accents.restart"
            value={accents.restart}
            choices={choices.restarts}
            onChange={(restart) => onChange({ ...accents, restart: restart as Typed["restart"] })}
          />
        </>
      )}
      {accents.kind === "walk" && <WalkWords walk={accents} onChange={onChange} />}
      {accents.kind === "typed" && <TypedWords typed={accents} choices={choices} onChange={onChange} />}
    </>
  );
}

function WalkWords({ walk, onChange }: { walk: Walk; onChange: (walk: Walk) => void }) {
  return (
    <>
      ,{" "}
      <CountField
        label="neighbouring accents"
        field="accents.width"
        value={walk.width}
        onChange={(count) => onChange({ ...walk, width: count })}
      />{" "}
      wide, moving every{" "}
      <CountField
        label="bars on a station"
        field="accents.bars"
        value={walk.bars}
        onChange={(count) => onChange({ ...walk, bars: count })}
      />{" "}
      {walk.bars === 1 ? "bar" : "bars"}
    </>
  );
}

type TypedProps = { typed: Typed; choices: Choices; onChange: (typed: Typed) => void };

function TypedWords({ typed, choices, onChange }: TypedProps) {
  const { refuse } = useContext(BriefContext);
  const type = (text: string) => {
    const signs = text.split(/\s+/).filter((sign) => sign);
    const levels = signs.map((sign) =>
      (Object.keys(SIGNS) as Level[]).find((level) => SIGNS[level] === sign),
    );
    const unknown = levels.indexOf(undefined);
    refuse(
      "accents.cycle",
      unknown < 0
        ? null
        : `Sign ${unknown + 1}, “${signs[unknown]}”, is not one of > (accent), - (plain), o (ghost).`,
    );
    if (unknown < 0) onChange({ ...typed, cycle: levels as Level[] });
  };
  return (
    <>
      {" "}
      <BriefField
        label="accent pattern"
        field="accents.cycle"
        value={typed.cycle.map((level) => SIGNS[level]).join(" ")}
        hint="> accent, - plain, o ghost, with spaces: > - - o."
        onChange={type}
      />{" "}
      that{" "}
      <BriefSelect
        label="restart of the accent pattern"
        field="accents.restart"
        value={typed.restart}
        choices={choices.restarts}
        onChange={(restart) => onChange({ ...typed, restart: restart as Typed["restart"] })}
      />
    </>
  );
}
