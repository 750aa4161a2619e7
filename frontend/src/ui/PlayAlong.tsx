import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, type Choices, type Schemas, type Tread } from "../api/client";
import { Dialog } from "./Dialog";
import { FileProgress } from "./FileProgress";
import { Problem } from "./Problem";

type Body = Schemas["PlayAlongBody"];
type Props = {
  drillId: number;
  version: number;
  treads: readonly Tread[];
  /** The rung that the climb stands on. */
  rung: number;
  choices: Choices;
  onClose: () => void;
};

const FORMATS = [
  ["mp3", "MP3"],
  ["ogg", "Ogg"],
  ["flac", "FLAC"],
  ["wav", "WAV"],
] as const;
export const A_BAR_OF_COUNT = { listen_bars: 0, say_bars: 0, count_bars: 1, count_beats: 0, count_words: "" };

/** A play-along file of one rung or of several, one after the other: what is in it, and how far it is. */
export function PlayAlong({ drillId, version, treads, rung, choices, onClose }: Props) {
  const [from, setFrom] = useState(rung);
  const [to, setTo] = useState(rung);
  const [passes, setPasses] = useState(2);
  const [sound, setSound] = useState<NonNullable<Body["sound"]>>("mp3");
  const [isSet, setIsSet] = useState(false);
  const [timbre, setTimbre] = useState<Body["timbre"]>("beep");
  const [heard, setHeard] = useState({ click: true, notes: true, aloud: true, count: false });
  const [backing, setBacking] = useState<NonNullable<Body["backing"]>>([]);
  const begin = useMutation({
    mutationFn: () =>
      api.playAlong({
        drill_id: drillId,
        version,
        rungs: treads
          .filter((tread) => tread.number >= Math.min(from, to) && tread.number <= Math.max(from, to))
          .map(({ bpm, click }) => ({ bpm, click })),
        sound,
        passes,
        timbre,
        is_set: isSet,
        click: heard.click,
        notes: heard.notes,
        backing,
        spoken: { what: heard.count ? "slots" : "nothing", words: "count" },
        before: { ...A_BAR_OF_COUNT, aloud: heard.aloud },
      }),
  });
  const rungs = (
    <>
      {treads.map((tread) => (
        <option key={tread.number} value={tread.number}>
          {tread.number}: {tread.bpm_label} bpm{tread.click_words && `, click ${tread.click_words}`}
        </option>
      ))}
    </>
  );
  return (
    <Dialog title="Play-along file" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <div className="flex flex-wrap items-center gap-2">
          <Pick name="From rung" value={from} onChange={(value) => setFrom(Number(value))}>
            {rungs}
          </Pick>
          <Pick name="to rung" value={to} onChange={(value) => setTo(Number(value))}>
            {rungs}
          </Pick>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <Pick name="Passes of each" value={passes} onChange={(value) => setPasses(Number(value))}>
            {[1, 2, 4, 8, 16].map((count) => (
              <option key={count}>{count}</option>
            ))}
          </Pick>
          <Pick name="as" value={sound} onChange={(value) => setSound(value as typeof sound)}>
            {FORMATS.map(([kind, name]) => (
              <option key={kind} value={kind}>
                {name}
              </option>
            ))}
          </Pick>
          <Pick name="in" value={isSet ? "set" : "one"} onChange={(value) => setIsSet(value === "set")}>
            <option value="one">one file</option>
            <option value="set">a file each, numbered, with a list (zip)</option>
          </Pick>
          <Pick
            name="with a click like"
            value={timbre}
            onChange={(value) => setTimbre(value as typeof timbre)}
          >
            {choices.timbres.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </Pick>
        </div>
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
          <legend className="text-soft">What is heard</legend>
          <Check name="the click" on={heard.click} onChange={(click) => setHeard({ ...heard, click })} />
          <Check name="the notes" on={heard.notes} onChange={(notes) => setHeard({ ...heard, notes })} />
          <Check
            name="the count-in, spoken"
            on={heard.aloud}
            onChange={(aloud) => setHeard({ ...heard, aloud })}
          />
          <Check
            name="every slot, spoken"
            on={heard.count}
            onChange={(count) => setHeard({ ...heard, count })}
          />
          {choices.backings.map((one) => {
            const part = one.value as (typeof backing)[number];
            return (
              <Check
                key={part}
                name={one.label}
                on={backing.includes(part)}
                onChange={(on) =>
                  setBacking(on ? [...backing, part] : backing.filter((other) => other !== part))
                }
              />
            );
          })}
        </fieldset>
        <button
          type="submit"
          className={`button justify-self-start ${begin.data ? "" : "button-first"}`}
          disabled={begin.isPending}
        >
          Make the file
        </button>
      </form>
      {begin.isError && <Problem error={begin.error} />}
      {begin.data && <FileProgress key={begin.data.key} begun={begin.data} />}
    </Dialog>
  );
}

type PickProps = {
  name: string;
  value: string | number;
  onChange: (value: string) => void;
  children: React.ReactNode;
};

function Pick({ name, value, onChange, children }: PickProps) {
  const id = useId();
  return (
    <>
      <label htmlFor={id}>{name}</label>
      <select
        id={id}
        className="brief-word max-w-full"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {children}
      </select>
    </>
  );
}

function Check({ name, on, onChange }: { name: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-1">
      <input
        type="checkbox"
        className="checkbox checkbox-sm checkbox-primary"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      {name}
    </label>
  );
}
