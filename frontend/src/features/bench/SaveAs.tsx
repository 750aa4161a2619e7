import type { Schemas } from "../../api/client";

export type Sound = Schemas["SoundChoice"]["value"];
type Props = {
  choices: Schemas["Choices"];
  onSave: (ending: string) => void;
  onSound: (sound: Sound) => void;
};

/** The drill as a file, in one of the open formats; sound takes its time, and is made beside. */
export function SaveAs({ choices: { exports, sounds }, onSave, onSound }: Props) {
  return (
    <label className="button cursor-default gap-2">
      Save as
      <select
        className="brief-word"
        value=""
        onChange={({ target }) => {
          const sound = sounds.find((one) => one.value === target.value);
          if (sound) onSound(sound.value);
          else if (target.value) onSave(target.value);
        }}
      >
        <option value="">…</option>
        {[...exports, ...sounds].map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}
