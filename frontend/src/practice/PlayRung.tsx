import { useEffect, useMemo, useRef, useState } from "react";
import { TAPS_ALONE } from "../features/stand/hearing/hearing";
import type { Run } from "../features/stand/runs";
import { type RailHandle, StandRail } from "../features/stand/StandRail";
import { USUAL_SOUND } from "../features/stand/sound";
import { TapButton } from "../features/stand/TapButton";
import { useStand } from "../features/stand/useStand";
import type { Contents, PracticeClimb, PracticeRung } from "./contents";
import type { DoneTake, Mark } from "./done";

type Props = {
  file: Contents;
  climb: PracticeClimb;
  rung: PracticeRung;
  /** What was played of this rung, the newest last. */
  takes: readonly DoneTake[];
  onPlayed: (runs: readonly Run[]) => void;
  onMark: (id: string, mark: Mark) => void;
};

/** A rung: its tempo, its rail, start and taps, and the word of who played it. */
export function PlayRung({ file, climb, rung, takes, onPlayed, onMark }: Props) {
  const rail = useRef<RailHandle>(null);
  const [muted, setMuted] = useState({ click: false, notes: false });
  const reading = climb.readings[rung.reading];
  const given = useMemo(() => ({ performance: rung.performance, voice: climb.voice }), [rung, climb]);
  const made = useMemo(() => ({ recipes: file.recipes, voice: file.voice }), [file]);
  const stand = useStand({
    made,
    performance: given,
    of: {
      click: rung.click,
      rung: rung.number,
      part: rung.part ?? null,
      remedyId: null,
      passes: file.passes,
      isMeasured: true,
    },
    clickMuted: muted.click,
    notesMuted: muted.notes,
    sound: USUAL_SOUND,
    hearing: TAPS_ALONE,
    onFrame: (position) => rail.current?.show(position),
    onEnd: onPlayed,
  });
  const { isPlaying, start, stop, tap } = stand;
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const at = event.target instanceof HTMLElement ? event.target : null;
      if (at?.closest("textarea, input, select") || event.repeat) return;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const key = event.key.toLowerCase();
      if (event.key === " ") {
        // A button that has the focus is pressed by it.
        if (at?.closest("button, summary")) return;
        event.preventDefault();
        if (isPlaying) stop();
        else void start();
      } else if (key === "j" || key === "f") tap(event.timeStamp, key);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [isPlaying, start, stop, tap]);
  const last = takes.at(-1);
  if (!reading) return null;
  return (
    <section aria-label={`Rung ${rung.number}`} className="flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-x-6">
        <div>
          <p className="text-soft">rung {rung.number}</p>
          <p className="big-number">
            <span className="sr-only">{reading.sign_name} = </span>
            {rung.bpm_label}
          </p>
        </div>
        <p className="pb-3">
          <strong>{rung.nps}</strong> notes a second, click {rung.click_words}
          {rung.words && <>, {rung.words}</>}
          <br />
          <span className="text-soft" aria-live="polite">
            {WHERE[stand.moment.phase](stand.moment.word, stand.moment.bar)}
          </span>
        </p>
      </div>
      <StandRail
        reading={reading}
        large={false}
        short={false}
        hidden={false}
        swings={false}
        onLit={noLight}
        ref={rail}
      />
      {stand.message && (
        <p role="alert" className="bg-care text-care-text rounded-lg px-3 py-2 font-semibold">
          {stand.message}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="button button-start"
          onClick={() => (isPlaying ? stop() : void start())}
        >
          {isPlaying ? "Stop" : "Start"}
        </button>
        {(reading.two_hands ? (["f", "j"] as const) : ([null] as const)).map((key) => (
          <TapButton
            key={key}
            name={key === "f" ? "Left" : key === "j" ? "Right" : "Tap along"}
            keys={key ? [key.toUpperCase()] : ["J", "F"]}
            onTap={(eventMs) => tap(eventMs, key)}
          />
        ))}
        {(["click", "notes"] as const).map((channel) => (
          <button
            key={channel}
            type="button"
            className="button button-quiet"
            aria-pressed={muted[channel]}
            onClick={() => setMuted({ ...muted, [channel]: !muted[channel] })}
          >
            {muted[channel]
              ? `The ${channel} ${channel === "click" ? "is" : "are"} muted`
              : `Mute the ${channel}`}
          </button>
        ))}
      </div>
      {last && !isPlaying && (
        <div className="card-plain" role="status">
          <p>
            {last.notes.length > 0
              ? `${last.notes.length} taps are kept: your teacher’s Ripresa measures them. How was it?`
              : "Nothing was tapped. How was it?"}
          </p>
          <div className="flex gap-2 mt-2">
            {(["clean", "shaky"] as const).map((mark) => (
              <button
                key={mark}
                type="button"
                className="button"
                aria-pressed={last.mark === mark}
                onClick={() => onMark(last.id, mark)}
              >
                {mark === "clean" ? "Clean" : "Shaky"}
                {last.mark === mark && " ✓"}
              </button>
            ))}
          </div>
          <p className="text-soft mt-1">{climb.clean}</p>
        </div>
      )}
    </section>
  );
}

const noLight = () => {};

const WHERE = {
  idle: () => "",
  listen: () => "listen",
  say: (word: string) => `say ${word}`,
  count: (word: string) => `count in: ${word}`,
  play: (_: string, bar: number) => `bar ${bar}`,
};
