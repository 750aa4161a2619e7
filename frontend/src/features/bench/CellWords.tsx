import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";

type Cells = Extract<Drill["material"], { kind: "cells" }>;
type Props = { cells: Cells; choices: Choices; onChange: (cells: Cells) => void };

/** Rhythms of one beat, and how they are mixed into bars. */
export function CellWords({ cells, choices, onChange }: Props) {
  return (
    <>
      <BriefField
        label="cells"
        field="material.text"
        long
        value={cells.text}
        hint="Each a count of one beat, parted by ;  1 &; 1 e & a; (1) trip let."
        onChange={(text) => onChange({ ...cells, text })}
      />
      ,{" "}
      <BriefSelect
        label="how cells are mixed"
        field="material.mix"
        value={cells.mix}
        choices={choices.mixes}
        onChange={(mix) => onChange({ ...cells, mix: mix as Cells["mix"] })}
      />
      {cells.mix === "drawn" && (
        <>
          {" "}
          for{" "}
          <CountField
            label="bars that are drawn"
            field="material.bars"
            value={cells.bars}
            onChange={(count) => onChange({ ...cells, bars: count })}
          />{" "}
          bars, draw{" "}
          <CountField
            label="number of the draw"
            field="material.seed"
            value={cells.seed}
            onChange={(count) => onChange({ ...cells, seed: count })}
          />
        </>
      )}
    </>
  );
}
