import type { Drill } from "../../../api/client";
import { BriefField } from "../../../ui/brief/BriefField";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { CountField } from "../../../ui/brief/CountField";
import type { PartProps } from "./part";

type Cue = Drill["cues"][number];

/** Lines of technique, each with where it holds. */
export function CueWords({ drill, choices, onChange }: PartProps) {
  const { cues } = drill;
  const set = (all: Cue[]) => onChange({ cues: all }, "cues");
  return (
    <>
      thinking of{" "}
      {cues.map((cue, index) => {
        const change = (part: Partial<Cue>) =>
          set(cues.map((one, at) => (at === index ? { ...one, ...part } : one)));
        return (
          <span key={index}>
            {index > 0 && "; "}
            <BriefField
              label={`cue ${index + 1}`}
              field="cues"
              long
              value={cue.text}
              hint="Up to 80 signs, read at a glance: drop the wrist on the accent."
              onChange={(text) => text.trim() && change({ text })}
            />{" "}
            <BriefSelect
              label={`where cue ${index + 1} holds`}
              field="cues.where"
              value={cue.where}
              choices={choices.cue_wheres}
              onChange={(where) => change({ where: where as Cue["where"] })}
            />
            {(cue.where === "leg" || cue.where === "station") && (
              <>
                {" "}
                <CountField
                  label={`number of the ${cue.where} of cue ${index + 1}`}
                  field="cues.number"
                  value={cue.number}
                  hint="Counted from 1."
                  onChange={(number) => change({ number })}
                />
              </>
            )}
            {cue.where === "step" && (
              <>
                {" "}
                <BriefSelect
                  label={`step of cue ${index + 1}`}
                  field="cues.step"
                  value={cue.step}
                  choices={choices.steps}
                  onChange={(step) => change({ step: step as Cue["step"] })}
                />
              </>
            )}{" "}
            <button
              type="button"
              className="brief-word"
              aria-label={`Take out cue ${index + 1}`}
              onClick={() => set(cues.filter((_, at) => at !== index))}
            >
              ×
            </button>
          </span>
        );
      })}{" "}
      <button
        type="button"
        className="brief-word"
        onClick={() =>
          set([...cues, { text: "another cue", where: "leg", number: cues.length + 1, step: "whole" }])
        }
      >
        + cue
      </button>
    </>
  );
}
