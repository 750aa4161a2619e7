import type { Choices, Drill } from "../../api/client";
import { AmountField } from "./AmountField";
import { BriefField } from "./BriefField";
import { BriefSelect } from "./BriefSelect";
import { CountField } from "./CountField";

export type Click = Drill["click"];

type Props = { click: Click; choices: Choices; onChange: (click: Click) => void };

/** Where the click falls, in words. */
export function ClickWords({ click, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="click"
        field="click.plan"
        value={shownAs(click)}
        choices={choices.clicks}
        onChange={(value) => onChange(choices.clicks.find((one) => one.value === value)?.fresh ?? click)}
      />
      <Numbers click={click} choices={choices} onChange={onChange} />
    </>
  );
}

function shownAs(click: Click): string {
  switch (click.kind) {
    case "named":
      return click.plan;
    case "slots":
      return `slots ${click.which}`;
    default:
      return click.kind;
  }
}

function Numbers({ click, choices, onChange }: Props) {
  switch (click.kind) {
    case "thinned":
      return (
        <>
          : every{" "}
          <AmountField
            label="beats from click to click"
            field="click.every"
            what="number"
            exact={click.every}
            hint="8 or 16, or 1 with a place off the beat."
            onChange={(every) => onChange({ ...click, every })}
          />
          ,{" "}
          <AmountField
            label="beats the click is late"
            field="click.by"
            what="number"
            exact={click.by}
            hint="½ is the &, ¼ the e, ⅔ the last of a triplet; 0 on the beat."
            onChange={(by) => onChange({ ...click, by })}
          />{" "}
          late
        </>
      );
    case "drop_out": {
      const bars = (part: "on" | "off" | "grows", label: string) => (
        <CountField
          label={label}
          field={`click.${part}`}
          value={click[part]}
          onChange={(count) => onChange({ ...click, [part]: count })}
        />
      );
      return (
        <>
          : {bars("on", "bars with the click")} on, {bars("off", "bars without the click")} off, growing by{" "}
          {bars("grows", "bars the silence grows")}
        </>
      );
    }
    case "typed":
      return (
        <>
          {" "}
          <BriefField
            label="click as a count"
            field="click.text"
            long
            value={click.text}
            hint="2 4; a of 1, 3; (1) a is the a of 1; >1 is strong; | bar line. It begins again by itself."
            onChange={(text) => onChange({ ...click, text })}
          />
        </>
      );
    case "by_meter": {
      const plan = (part: "first" | "second", label: string) => (
        <BriefSelect
          label={label}
          field={`click.${part}`}
          value={click[part]}
          choices={choices.clicks.filter((one) => one.fresh.kind === "named")}
          onChange={(key) => onChange({ ...click, [part]: key })}
        />
      );
      return (
        <>
          : {plan("first", "click in the first meter")}, then {plan("second", "click in the other meter")}
        </>
      );
    }
    case "named":
    case "slots":
      return null;
  }
}
