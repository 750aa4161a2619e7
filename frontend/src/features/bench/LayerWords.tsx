import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { RateWords } from "./more/RateWords";

type Change = (changed: Partial<Drill>, word: string) => void;
type Props = { drill: Drill; choices: Choices; onChange: Change };

/** Which notes are played; the rest keep their time in silence. */
export function ReduceWords({ drill: { reduce }, choices, onChange }: Props) {
  return (
    <>
      playing{" "}
      <BriefSelect
        label="what is played of it"
        field="reduce"
        value={reduce.part}
        choices={choices.parts}
        onChange={(value) => {
          const part = value as typeof reduce.part;
          onChange(
            { reduce: { ...reduce, part, hand: part === "hand" ? reduce.hand || "R" : reduce.hand } },
            "reduce",
          );
        }}
      />
      {reduce.part === "hand" && (
        <>
          {" "}
          <BriefField
            label="hand that plays alone"
            field="reduce.hand"
            value={reduce.hand}
            hint="Its symbol as under the rail: R, L, D, U, T."
            onChange={(hand) => onChange({ reduce: { ...reduce, hand: hand.trim() } }, "reduce")}
          />
        </>
      )}
      {reduce.part === "burst" && (
        <>
          {" "}
          of{" "}
          <CountField
            label="beats of a burst"
            field="reduce.beats"
            value={reduce.beats}
            hint="1 to 64. It ends on the note that it arrives on, and rests as long."
            onChange={(beats) => onChange({ reduce: { ...reduce, beats } }, "reduce")}
          />{" "}
          beats
        </>
      )}
    </>
  );
}

/** What the body does meanwhile, at a rate of its own. */
export function BodyWords({ drill: { body }, choices, onChange }: Props) {
  return (
    <>
      with{" "}
      <BriefSelect
        label="movement of the body"
        field="body.movement"
        value={body.movement}
        choices={choices.movements.filter((one) => one.value !== "tap" || body.movement === "tap")}
        onChange={(value) => {
          const movement = value as typeof body.movement;
          const every = choices.movements.find((one) => one.value === movement)?.every ?? body.every;
          onChange({ body: { ...body, movement, every } }, "body");
        }}
      />
      {body.movement !== "none" && (
        <RateWords
          what="movement"
          field="body"
          every={body.every}
          pattern={body.pattern}
          onChange={(rate) => onChange({ body: { ...body, ...rate } }, "body")}
        />
      )}
    </>
  );
}

/** What is said meanwhile. */
export function VoiceWords({ drill, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="voice while playing"
        field="voice"
        value={drill.voice}
        choices={choices.voices}
        onChange={(voice) => onChange({ voice: voice as Drill["voice"] }, "voice")}
      />
      {drill.voice === "talk" && (
        <>
          :{" "}
          <BriefField
            label="what to talk of"
            field="prompt"
            long
            placeholder="anything"
            value={drill.prompt}
            hint="Up to 120 signs, shown on the stand: what was for breakfast, the way to school backwards."
            onChange={(prompt) => onChange({ prompt }, "prompt")}
          />
        </>
      )}
    </>
  );
}

/** The steps by which it is learnt: a ready order, then any step taken out or in. */
export function WayInWords({ drill, choices, onChange }: Props) {
  const now = drill.way_in.join(" ");
  const known = choices.schools.find((one) => one.steps.join(" ") === now);
  const own = { value: "own", label: "your own way in", why: "" };
  const none = { value: "none", label: "no way in", why: "As the teacher says." };
  const set = (steps: Drill["way_in"]) => onChange({ way_in: steps }, "way_in");
  const one = drill.second.plays.kind === "none";
  const fits = (step: string) => !one || !choices.two_hand_steps.some((other) => other === step);
  const schools = choices.schools.filter((school) => school.steps.every(fits));
  const rest = choices.steps.filter(
    (step) => fits(step.value) && !drill.way_in.some((other) => other === step.value),
  );
  return (
    <>
      learnt{" "}
      <BriefSelect
        label="way in"
        field="way_in"
        value={known?.value ?? "own"}
        choices={[...schools, none, ...(known ? [] : [own])]}
        onChange={(value) => set(choices.schools.find((one) => one.value === value)?.steps ?? [])}
      />
      :{" "}
      {drill.way_in.map((step, index) => (
        <span key={step}>
          {index > 0 && ", "}
          <button
            type="button"
            className="brief-word"
            aria-label={`Take out the step: ${nameOf(choices, step)}`}
            onClick={() => set(drill.way_in.filter((one) => one !== step))}
          >
            {nameOf(choices, step)} ×
          </button>
        </span>
      ))}
      {rest.length > 0 && (
        <>
          {" "}
          <BriefSelect
            label="add a step"
            field="way_in.more"
            value=""
            choices={[{ value: "", label: "+ step", why: "It comes last." }, ...rest]}
            onChange={(step) => step && set([...drill.way_in, step as Drill["way_in"][number]])}
          />
        </>
      )}
    </>
  );
}

function nameOf(choices: Choices, step: string): string {
  return choices.steps.find((one) => one.value === step)?.label ?? step;
}

/** Words to find a drill by. */
export function TagWords({ drill, onChange }: Props) {
  return (
    <>
      tagged{" "}
      <BriefField
        label="tags"
        field="tags"
        value={drill.tags.join(", ")}
        hint="Words to find it by, parted by commas."
        onChange={(text) =>
          onChange(
            {
              tags: text
                .split(",")
                .map((tag) => tag.trim())
                .filter((tag) => tag),
            },
            "tags",
          )
        }
      />
    </>
  );
}
