import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Choices } from "../../api/client";
import { choicesQuery, sumsQuery } from "../../api/queries";
import { Brief } from "../../ui/brief/Brief";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { type Click, ClickWords } from "../../ui/brief/ClickWords";
import { Dialog } from "../../ui/Dialog";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";

const START = {
  bpm: "108",
  division: "4",
  nps: "8",
  size: "5",
  meter: "4/4",
  beats: "14",
};
/** A sum knows of no other hand that the click could be. */
const ofOneHand = (choices: Choices): Choices => ({
  ...choices,
  clicks: choices.clicks.filter(({ fresh }) => fresh.kind !== "slots" || fresh.which !== "other_hand"),
});

const FIRST_CLICK: Click = { kind: "named", plan: "two_and_four" };

/** The small calculations, over any place. */
export function SumsDrawer({ onClose }: { onClose: () => void }) {
  const [asked, setAsked] = useState(START);
  const choices = useQuery(choicesQuery);
  const [click, setClick] = useState(FIRST_CLICK);
  const sums = useQuery({
    ...sumsQuery({ ...asked, click: JSON.stringify(click) }),
    placeholderData: keepPreviousData,
  });
  const set = (field: keyof typeof START) => (value: string) => setAsked({ ...asked, [field]: value });
  const answers = useLastGood(sums.data);
  return (
    <Dialog title="Sums" onClose={onClose} side>
      <Brief label="What to work out" refusal={refusalOf(sums.error)}>
        <BriefField
          label="tempo in bpm"
          field="bpm"
          numeric
          before="At "
          value={asked.bpm}
          onChange={set("bpm")}
        />{" "}
        bpm with{" "}
        <BriefSelect
          label="notes per beat"
          field="division"
          value={asked.division}
          choices={choices.data?.divisions ?? []}
          onChange={set("division")}
        />{" "}
        a beat in{" "}
        <BriefSelect
          label="meter"
          field="meter"
          value={asked.meter}
          choices={choices.data?.meters ?? []}
          onChange={set("meter")}
        />
        ; towards{" "}
        <BriefField
          label="speed in notes a second"
          field="nps"
          hint="A speed such as 8, or a band such as 9-12."
          value={asked.nps}
          onChange={set("nps")}
        />{" "}
        notes a second; click{" "}
        {choices.data && <ClickWords click={click} choices={ofOneHand(choices.data)} onChange={setClick} />}
        {"; groups of "}
        <BriefField label="notes in a group" field="size" numeric value={asked.size} onChange={set("size")} />
        ; a pass of{" "}
        <BriefField
          label="beats in a pass"
          field="beats"
          numeric
          value={asked.beats}
          onChange={set("beats")}
        />{" "}
        beats.
      </Brief>
      {answers && (
        <div className="space-y-4 mt-2" aria-live="polite">
          <Sum title="Speed" lines={[answers.speed, answers.speed_working, answers.gap_ms]} strong />
          <section>
            <h3 className="text-primary font-bold">{answers.towards} is</h3>
            <table className="figures-table">
              <thead>
                <tr>
                  <th scope="col">a beat</th>
                  <th scope="col">exactly</th>
                  <th scope="col">set</th>
                  <th scope="col">gives n/s</th>
                </tr>
              </thead>
              <tbody>
                {answers.tempi.map((row) => (
                  <tr key={row.division}>
                    <td>{row.division}</td>
                    <td>{row.exact}</td>
                    <td className="font-bold">{row.setting}</td>
                    <td>{row.gives}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <Sum title="Inner pulse" lines={[answers.pulse, answers.pulse_note]} />
          <Sum title="Plain metronome" lines={[answers.dial, answers.drift]} />
          <Sum
            title={`Groups of ${asked.size}`}
            lines={[answers.groups, answers.beat_notes, answers.group_starts]}
          />
          <Sum title="A pass" lines={[answers.span]} />
        </div>
      )}
    </Dialog>
  );
}

function Sum({ title, lines, strong = false }: { title: string; lines: string[]; strong?: boolean }) {
  return (
    <section>
      <h3 className="text-primary font-bold">{title}</h3>
      {lines
        .filter((line) => line)
        .map((line, index) => (
          <p key={line} className={strong && index === 0 ? "text-lg font-bold" : ""}>
            {line}
          </p>
        ))}
    </section>
  );
}
