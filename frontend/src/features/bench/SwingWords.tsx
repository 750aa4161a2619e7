import type { Choices, Drill } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Swing = Drill["swing"];

const ON = [
  { value: "2", label: "eighths", why: "Quarters of a beat go along inside each half." },
  { value: "4", label: "sixteenths", why: "The halves of the beat stay where they are." },
];

/** How pairs lie: straight, or the first longer by a ratio, and which pairs. */
export function SwingWords({
  swing,
  choices,
  onChange,
}: {
  swing: Swing;
  choices: Choices;
  onChange: (swing: Swing) => void;
}) {
  const known = choices.swings.some((one) => one.value === swing.ratio);
  const other = { value: swing.ratio, label: `with a swing of ${swing.ratio}`, why: "" };
  return (
    <>
      <BriefSelect
        label="swing"
        field="swing.ratio"
        value={swing.ratio}
        choices={known ? choices.swings : [...choices.swings, other]}
        onChange={(ratio) => onChange({ ...swing, ratio })}
      />
      {swing.ratio !== "1" && (
        <>
          {" "}
          on{" "}
          <BriefSelect
            label="which pairs swing"
            field="swing.on"
            value={String(swing.on)}
            choices={ON}
            onChange={(on) => onChange({ ...swing, on: on === "4" ? 4 : 2 })}
          />
        </>
      )}
    </>
  );
}
