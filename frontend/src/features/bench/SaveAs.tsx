import { files, type Schemas } from "../../api/client";

export type Sound = NonNullable<Schemas["PlayAlongBody"]["sound"]>;
type Props = {
  onSave: (file: (id: number, version: number) => string) => void;
  onSound: (sound: Sound) => void;
};

const FILES: [string, (id: number, version: number) => string][] = [
  ["a drill file", files.drill],
  ["MIDI", files.midi],
  ["MusicXML", files.musicxml],
  ["MusicXML, packed (mxl)", files.mxl],
];
const SOUNDS: [string, Sound][] = [
  ["sound to play along, MP3", "mp3"],
  ["sound to play along, WAV", "wav"],
  ["sound to play along, FLAC", "flac"],
  ["sound to play along, Ogg", "ogg"],
];

/** The drill as a file, in one of the open formats; sound takes its time, and is made beside. */
export function SaveAs({ onSave, onSound }: Props) {
  return (
    <label className="button cursor-default gap-2">
      Save as
      <select
        className="brief-word"
        value=""
        onChange={({ target }) => {
          const file = FILES.find(([name]) => name === target.value);
          const sound = SOUNDS.find(([name]) => name === target.value);
          if (file) onSave(file[1]);
          if (sound) onSound(sound[1]);
        }}
      >
        <option value="">…</option>
        {[...FILES, ...SOUNDS].map(([name]) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
