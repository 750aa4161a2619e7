import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { api, files, type Schemas, type Take } from "../../api/client";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";

type Moment = { at: number; times: number } | null;

type Props = {
  takeId: string;
  /** Where the take begins on its own clock, in seconds. */
  start: number;
  /** A moment of the take from which it is to be heard, and how often that was asked for. */
  from: Moment;
};

/** A take is heard from a little before the note that was pressed. */
const BEFORE = 0.25;
const HEARD = [
  { key: "take", name: "what was played" },
  { key: "click", name: "the click" },
  { key: "notes", name: "the ideal" },
] as const;

/** Whether a source gives something to hear again: pitches, or the sound itself. */
export const canBeHeard = (source: Take["source"]): boolean =>
  source === "microphone" || source === "midi" || source === "file";

/** From where a take is heard: the note that was pressed last, which is told as well. */
export function useHeardFrom(figures: Schemas["FiguresShape"] | null, onNote: (event: number) => void) {
  const [from, setFrom] = useState<Moment>(null);
  const hear = (event: number, at?: number) => {
    onNote(event);
    const moment = at ?? figures?.line.find((point) => point.event === event)?.at;
    if (moment !== undefined) setFrom((old) => ({ at: moment, times: (old?.times ?? 0) + 1 }));
  };
  return { from, hear };
}

/** The take as it was played, beside the click and the ideal: whole, or from any note that is pressed. */
export function PlayedBack({ takeId, start, from }: Props) {
  const id = useId();
  const how = useQuery({
    queryKey: ["takes", takeId, "back"],
    queryFn: () => api.howBack(takeId),
    retry: false,
  });
  const [heard, setHeard] = useState({ take: true, click: true, notes: false });
  const [failed, setFailed] = useState(false);
  const audio = useRef<HTMLAudioElement>(null);
  useEffect(() => {
    const sound = audio.current;
    if (!from || !sound) return;
    const go = () => {
      sound.currentTime = Math.max(0, from.at - start - BEFORE);
      void sound.play().catch(() => {});
    };
    if (sound.readyState > 0) go();
    else {
      sound.addEventListener("loadedmetadata", go, { once: true });
      sound.load();
    }
  }, [from, start]);
  if (how.isError) return <Problem error={how.error} />;
  if (!how.data || how.data.kind === "none") return null;
  return (
    <section className="mt-2" aria-labelledby={id}>
      <h2 id={id} className="font-bold text-primary">
        Heard again
      </h2>
      <p className="text-soft text-sm">
        {how.data.until ? `The recording is kept until ${moment(how.data.until)}. ` : `${how.data.sentence} `}
        Press a note above to hear it from there.
      </p>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        {/* biome-ignore lint/a11y/useMediaCaption: music without words */}
        <audio
          ref={audio}
          controls
          preload="none"
          aria-label="the take, heard again"
          src={files.heardBack(takeId, heard)}
          onError={() => setFailed(true)}
          onPlay={() => setFailed(false)}
        />
        {HEARD.map(({ key, name }) => (
          <label key={key} className="flex items-center gap-1">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={heard[key]}
              onChange={(event) => setHeard({ ...heard, [key]: event.target.checked })}
            />
            {name}
          </label>
        ))}
      </div>
      {failed && (
        <p role="alert">It cannot be played back: the recording is gone, or the server does not answer.</p>
      )}
    </section>
  );
}
