import { files } from "../../api/client";

type Props = { onSave: (file: (id: number, version: number) => string) => void };

const FORMATS: [string, (id: number, version: number) => string][] = [
  ["a drill file", files.drill],
  ["MIDI", files.midi],
  ["MusicXML", files.musicxml],
  ["sound to play along, MP3", files.sound("mp3")],
  ["sound to play along, WAV", files.sound("wav")],
  ["sound to play along, FLAC", files.sound("flac")],
  ["sound to play along, Ogg", files.sound("ogg")],
];

/** The drill as a file, in one of the open formats. */
export function SaveAs({ onSave }: Props) {
  return (
    <label className="button cursor-default gap-2">
      Save as
      <select
        className="brief-word"
        value=""
        onChange={(event) => {
          const chosen = FORMATS.find(([name]) => name === event.target.value);
          if (chosen) onSave(chosen[1]);
        }}
      >
        <option value="">…</option>
        {FORMATS.map(([name]) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
