import { useContext } from "react";
import type { Drill } from "../../../api/client";
import { BriefField } from "../../../ui/brief/BriefField";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { CountField } from "../../../ui/brief/CountField";
import { BriefContext } from "../../../ui/brief/context";
import { wholeNumbers } from "./numbers";
import type { PartProps } from "./part";

/** Which slots are hits, and how many notes between them each section plays. */
export function HitWords({ drill: { hits }, choices, onChange }: PartProps) {
  const { refuse } = useContext(BriefContext);
  const set = (part: Partial<Drill["hits"]>) => onChange({ hits: { ...hits, ...part } }, "hits");
  const type = (text: string) => {
    const fills = wholeNumbers(text);
    refuse(
      "hits.fills",
      fills ? null : `“${text}” is no list of numbers. Write how many notes each section plays: 5 6 8 11.`,
    );
    if (fills) set({ fills });
  };
  return (
    <>
      hits on{" "}
      <BriefField
        label="hits as a count"
        field="hits.text"
        long
        placeholder="what is accented"
        value={hits.text}
        hint="A count that begins again by itself: 1 a | 3 ~&; ~ is a light hit. Or press them on the rail."
        onChange={(text) => set({ text })}
      />
      {hits.again > 0 && (
        <>
          , again after{" "}
          <CountField
            label="bars after which the hits begin again"
            field="hits.again"
            value={hits.again}
            hint="1 to 128 bars; 0 for as many as are written."
            onChange={(again) => set({ again })}
          />{" "}
          {hits.again === 1 ? "bar" : "bars"},
        </>
      )}{" "}
      filled with{" "}
      <BriefField
        label="notes that fill each section"
        field="hits.fills"
        placeholder="all between them"
        value={hits.fills.join(" ")}
        hint="How many notes between the hits each section plays, in order: 5 6 8 11. Empty for all of them."
        onChange={type}
      />
      {hits.fills.length > 0 && (
        <>
          {" "}
          a section of{" "}
          <CountField
            label="bars of a section"
            field="hits.bars"
            value={hits.bars}
            hint="1 to 16 bars."
            onChange={(bars) => set({ bars })}
          />{" "}
          {hits.bars === 1 ? "bar" : "bars"},{" "}
          <BriefSelect
            label="which notes of a section"
            field="hits.filled"
            value={hits.filled}
            choices={choices.fills_from}
            onChange={(filled) => set({ filled: filled as Drill["hits"]["filled"] })}
          />
        </>
      )}
    </>
  );
}
