import type { Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { typedCount } from "./MaterialWords";

type Accents = Drill["accents"];
const KINDS = [
  { value: "each_beat", label: "each beat", why: "The beat is heard in the playing itself." },
  {
    value: "every_nth",
    label: "every so many notes",
    why: "Groups that may cross the beat: the accent wanders.",
  },
  { value: "none", label: "nothing", why: "All notes alike." },
];
const FRESH: Record<Accents["kind"], Accents> = {
  each_beat: { kind: "each_beat" },
  every_nth: { kind: "every_nth", size: 5 },
  none: { kind: "none" },
};

/** Which notes are stressed, in words. */
export function AccentWords({
  accents,
  onChange,
}: {
  accents: Accents;
  onChange: (accents: Accents) => void;
}) {
  return (
    <>
      Accent{" "}
      <BriefSelect
        label="accents"
        field="accents.kind"
        value={accents.kind}
        choices={KINDS}
        onChange={(kind) => onChange(FRESH[kind as Accents["kind"]])}
      />
      {accents.kind === "every_nth" && (
        <>
          , in groups of{" "}
          <BriefField
            label="notes in a group"
            field="accents.size"
            numeric
            value={String(accents.size)}
            hint="2 to 64. Five on four comes home after five beats."
            onChange={(text) => onChange({ kind: "every_nth", size: typedCount(text) })}
          />
        </>
      )}
    </>
  );
}
