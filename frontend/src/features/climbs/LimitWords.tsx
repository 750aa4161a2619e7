import type { Choices, Plan } from "../../api/client";
import { AndMore } from "../../ui/brief/AndMore";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Held = Pick<Plan, "evenness" | "but">;
type Props = { limits: Held; choices: Choices; onChange: (limits: Held) => void };

/** What a take is held to, as words of a brief: "evenness working, but changes, landings and places easy". */
export function LimitWords({ limits, choices, onChange }: Props) {
  const { evenness, but } = limits;
  const free = choices.limits.filter((one) => !but.some((other) => other.figure === one.value));
  return (
    <>
      evenness{" "}
      <BriefSelect
        label="evenness"
        field="evenness"
        value={evenness}
        choices={choices.evenness}
        onChange={(school) => onChange({ evenness: school as Held["evenness"], but })}
      />
      {but.map((one, index) => {
        const figure = choices.limits.find((other) => other.value === one.figure);
        const schools = choices.evenness.map((school) => ({
          ...school,
          why: figure?.schools[school.value] ?? "",
        }));
        return (
          <span key={one.figure}>
            {index ? " and " : ", but "}
            {figure?.label ?? one.figure}{" "}
            <BriefSelect
              label={`evenness of ${figure?.label ?? one.figure}`}
              field="but"
              value={one.evenness}
              choices={[...schools, { value: SAME, label: "as the rest", why: "No school of its own." }]}
              onChange={(school) =>
                onChange({
                  evenness,
                  but:
                    school === SAME
                      ? but.filter((other) => other !== one)
                      : but.map((other) =>
                          other === one ? { ...one, evenness: school as Held["evenness"] } : other,
                        ),
                })
              }
            />
          </span>
        );
      })}
      <AndMore
        label="but another evenness for one figure"
        parts={free.map((one) => ({
          offer: `but ${one.label} …`,
          why: Object.entries(one.schools)
            .map(([school, limit]) => `${school}: ${limit}`)
            .join("; "),
          figure: one.value,
        }))}
        onChoose={(part) =>
          onChange({
            evenness,
            but: [
              ...but,
              {
                figure: part.figure as Held["but"][number]["figure"],
                evenness: evenness === "easy" ? "working" : "easy",
              },
            ],
          })
        }
      />
    </>
  );
}

const SAME = "same";
