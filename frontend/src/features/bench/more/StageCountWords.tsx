import type { Drill } from "../../../api/client";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import type { PartProps } from "./part";

type Stage = Drill["stage_counts"][number];

/** How steps of the way in are counted, if not as the drill is. */
export function StageCountWords({ drill, choices, onChange }: PartProps) {
  const stages = drill.stage_counts;
  const set = (all: Stage[]) => onChange({ stage_counts: all }, "stage_counts");
  const steps = choices.steps.filter((step) => drill.way_in.some((one) => one === step.value));
  const systems = choices.countings.filter((one) => one.value !== "own");
  const free = steps.find((step) => !stages.some((one) => one.step === step.value));
  return (
    <>
      {stages.map((stage, index) => {
        const change = (part: Partial<Stage>) =>
          set(stages.map((one, at) => (at === index ? { ...one, ...part } : one)));
        return (
          <span key={stage.step}>
            {index > 0 && ", "}at{" "}
            <BriefSelect
              label="step with a count of its own"
              field="stage_counts"
              value={stage.step}
              choices={steps}
              onChange={(step) => change({ step: step as Stage["step"] })}
            />{" "}
            counted{" "}
            <BriefSelect
              label="count of that step"
              field="stage_counts.system"
              value={stage.counting.system}
              choices={systems}
              onChange={(system) =>
                change({ counting: { ...stage.counting, system: system as Stage["counting"]["system"] } })
              }
            />{" "}
            <button
              type="button"
              className="brief-word"
              aria-label="Take out the count of that step"
              onClick={() => set(stages.filter((_, at) => at !== index))}
            >
              ×
            </button>
          </span>
        );
      })}
      {free && (
        <>
          {" "}
          <button
            type="button"
            className="brief-word"
            onClick={() =>
              set([
                ...stages,
                {
                  step: free.value as Stage["step"],
                  counting: { system: "syllables", own: "", runs: "bar" },
                },
              ])
            }
          >
            + step
          </button>
        </>
      )}
    </>
  );
}
