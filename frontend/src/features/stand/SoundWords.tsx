import { useId } from "react";
import type { Choices } from "../../api/client";
import type { Timbre } from "../../audio/sounds";
import type { Sound } from "./sound";

type Part = NonNullable<Sound["parts"]>[number];
type Props = {
  sound: Sound;
  choices: Choices;
  /** The click in figures, a sentence each. */
  figures: readonly string[];
  onSound: (sound: Sound) => void;
};

/** Levels and the sound of the click; kept for each student in this browser. */
export function SoundWords({ sound, choices, figures, onSound }: Props) {
  const timbre = useId();
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Level name="Click" value={sound.click} onChange={(click) => onSound({ ...sound, click })} />
        <Level name="Notes" value={sound.notes} onChange={(notes) => onSound({ ...sound, notes })} />
        {sound.aloud && (
          <Level name="Voice" value={sound.voice} onChange={(voice) => onSound({ ...sound, voice })} />
        )}
        {(sound.parts ?? []).length > 0 && (
          <Level
            name="Backing"
            value={sound.backing}
            onChange={(backing) => onSound({ ...sound, backing })}
          />
        )}
        <fieldset className="flex flex-wrap items-center gap-x-3">
          <legend className="sr-only">Backing</legend>
          With
          {choices.backings.map((one) => {
            const part = one.value as Part;
            const parts = sound.parts ?? [];
            return (
              <label key={part} className="flex items-center gap-1" title={one.why}>
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm checkbox-primary"
                  checked={parts.includes(part)}
                  onChange={(event) =>
                    onSound({
                      ...sound,
                      parts: event.target.checked
                        ? [...parts, part]
                        : parts.filter((other) => other !== part),
                    })
                  }
                />
                {one.label}
              </label>
            );
          })}
        </fieldset>
        <label htmlFor={timbre} className="flex items-center gap-2">
          The click is
          <select
            id={timbre}
            className="brief-word"
            value={sound.timbre}
            onChange={(event) => onSound({ ...sound, timbre: event.target.value as Timbre })}
          >
            {choices.timbres.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </select>
        </label>
        <ClickByRole sound={sound} choices={choices} onSound={onSound} />
        <span className="text-soft text-sm">
          {choices.timbres.find((one) => one.value === sound.timbre)?.why} It begins soft, and its level is
          limited here; how loud that is, your loudspeaker or headphones decide: set them low first.
        </span>
      </div>
      <p className="text-soft text-sm mt-2">{figures.join(" ")}</p>
    </>
  );
}

const ROLES = [
  ["strong", "the bar’s first click"],
  ["plain", "clicks on the beat"],
  ["division", "clicks inside the beat"],
] as const;

/** Each role of the click by itself: how loud, and how it sounds; and a bar that begins without a mark. */
function ClickByRole({ sound, choices, onSound }: Pick<Props, "sound" | "choices" | "onSound">) {
  return (
    <details className="basis-full">
      <summary className="cursor-pointer text-primary font-semibold">The click, role by role</summary>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 mt-2">
        {ROLES.map(([role, name]) => {
          const own = sound.roles[role];
          const set = (part: Partial<typeof own>) =>
            onSound({ ...sound, roles: { ...sound.roles, [role]: { ...own, ...part } } });
          return (
            <div key={role} className="flex flex-wrap items-center gap-x-3">
              <Level
                name={name.replace(/^./, (first) => first.toUpperCase())}
                value={own.level}
                onChange={(level) => set({ level })}
              />
              <select
                className="brief-word"
                aria-label={`sound of ${name}`}
                value={own.timbre ?? ""}
                onChange={(event) => set({ timbre: (event.target.value || null) as Timbre | null })}
              >
                <option value="">as the click</option>
                {choices.timbres.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.label}
                  </option>
                ))}
              </select>
            </div>
          );
        })}
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            className="checkbox checkbox-sm checkbox-primary"
            checked={sound.unmarked}
            onChange={(event) => onSound({ ...sound, unmarked: event.target.checked })}
          />
          leave the bar’s first click unmarked: the student has to know where 1 is
        </label>
      </div>
    </details>
  );
}

type LevelProps = { name: string; value: number; onChange: (value: number) => void };

function Level({ name, value, onChange }: LevelProps) {
  const percent = Math.round(value * 100);
  return (
    <label className="flex items-center gap-2">
      {name}
      <input
        type="range"
        className="level"
        min={0}
        max={100}
        step={5}
        value={percent}
        aria-valuetext={`${percent} %`}
        onChange={(event) => onChange(Number(event.target.value) / 100)}
      />
      <span className="w-14 whitespace-nowrap">{percent} %</span>
    </label>
  );
}
