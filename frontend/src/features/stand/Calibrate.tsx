import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type Drill, type Setup, type SetupKey } from "../../api/client";
import { performanceQuery, queryClient, setupQuery } from "../../api/queries";
import { type Made, Player } from "../../audio/player";
import worklet from "../../audio/recorder.worklet.ts?worker&url";
import { Recording } from "../../audio/recording";
import type { Seconds } from "../../audio/schedule";
import { Dialog } from "../../ui/Dialog";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { useLetters } from "../../ui/useLetters";

type Props = {
  /** A plain click at a calm tempo: what one goes along with. */
  drill: Drill;
  made: Made;
  /** Which set-up is measured, and what is known of it. */
  of: SetupKey;
  setup: Setup | null;
  /** The microphone that is open, where that is the source. */
  stream: MediaStream | null;
  /** Tells of each note of a MIDI device while this is open. */
  listen: (heard: ((at: number) => void) | null) => void;
  onClose: () => void;
};

type Way = "device" | "hand";
type Measured = { due: Seconds[]; played: Seconds[]; recording: Recording | null; way: Way };

const WATCH_MS = 100;

/** Measures how late a set-up is: out of the loudspeaker and back in, or by a hand that goes along with the click. */
export function Calibrate({ drill, made, of, setup, stream, listen, onClose }: Props) {
  const score = useQuery(performanceQuery({ drill, bpm: null, click: null }));
  const player = useRef<Player | null>(null);
  const taps = useRef<Seconds[]>([]);
  const [count, setCount] = useState(0);
  const [playing, setPlaying] = useState<Way | null>(null);
  const bySound = of.source === "microphone";
  const measure = useMutation({
    mutationFn: async ({ due, played, recording, way }: Measured) => {
      let found: { latency_ms: number; half_width_ms: number };
      if (recording) {
        const { key, rate, begunAt } = await recording.finish();
        found = await api.roundTrip(
          key,
          rate,
          due.map((at) => at - begunAt),
        );
      } else found = await api.latency(due, played);
      return api.keepSetup(of, { way, ms: found.latency_ms, half: found.half_width_ms });
    },
    onSuccess: (kept) => {
      queryClient.setQueryData(setupQuery(of).queryKey, kept);
      void queryClient.invalidateQueries({ queryKey: ["setups", "all"] });
    },
  });
  useEffect(
    () => () => {
      player.current?.close();
      player.current = null;
    },
    [],
  );

  const begin = async (way: Way) => {
    if (!score.data) return;
    player.current ??= new Player(made);
    const sounding = player.current;
    sounding.mute("notes", true);
    taps.current = [];
    setCount(0);
    measure.reset();
    setPlaying(way);
    let recording: Recording | null = null;
    if (bySound && stream) {
      const from = sounding.context.createMediaStreamSource(stream);
      recording = await Recording.begin(sounding.context, from, worklet);
    }
    const { performance: clicks } = score.data;
    const stretch = await sounding.start(clicks, score.data.voice);
    if (!stretch) return;
    sounding.endAt = stretch.base + clicks.loop_seconds;
    // Wait until the last click has left the loudspeaker, and what comes back of it is in.
    const watch = setInterval(() => {
      if (sounding.isPlaying && sounding.heardAt(performance.now()) < sounding.endAt) return;
      clearInterval(watch);
      if (!sounding.isPlaying) return;
      sounding.stop();
      setPlaying(null);
      const due = clicks.ticks.map((tick) => stretch.base + tick.at);
      measure.mutate({ due, played: taps.current, recording, way });
    }, WATCH_MS);
  };
  const tapAt = (at: Seconds) => {
    if (!player.current?.isPlaying) return;
    taps.current.push(at);
    setCount(taps.current.length);
  };
  const tap = (eventMs: number) => tapAt(player.current?.heardAt(eventMs) ?? 0);
  useLetters("j,f", (event) => !event.repeat && of.source === "taps" && tap(event.timeStamp));
  const heard = useRef(tap);
  heard.current = tap;
  useEffect(() => {
    listen((eventMs) => heard.current(eventMs));
    return () => listen(null);
  }, [listen]);

  const known = measure.data ?? setup;
  return (
    <Dialog title="How late is this set-up?" onClose={onClose}>
      {known?.sentences.map((sentence) => (
        <p key={sentence} className="mb-2">
          {sentence}
        </p>
      ))}
      {score.isPending && <Loading what="the click" />}
      {score.isError && <Problem error={score.error} onRetry={() => void score.refetch()} />}
      {bySound && (
        <section className="mb-4">
          <h3 className="font-bold">Out of the loudspeaker and back in</h3>
          <p className="mb-2">
            Put the loudspeaker and the microphone beside each other, without headphones, and play nothing:
            what the devices add is measured, and no hand is in it.
          </p>
          <button
            type="button"
            className="button button-first"
            disabled={playing !== null || !score.data || !stream}
            onClick={() => void begin("device")}
          >
            {playing === "device" ? "Listening …" : "Measure the devices"}
          </button>
        </section>
      )}
      <section>
        <h3 className="font-bold">By hand</h3>
        <p className="mb-2">
          {of.source === "taps" ? (
            <>
              Tap <Key name="J" /> or the pad once with each click.
            </>
          ) : of.source === "midi" ? (
            "Strike one key or pad with each click."
          ) : (
            "With headphones on, play one short note with each click."
          )}{" "}
          What is measured is the device and the hand’s own habit together.
        </p>
        <div className="flex flex-wrap items-center gap-3">
          <button
            type="button"
            className={bySound ? "button" : "button button-first"}
            disabled={playing !== null || !score.data || (bySound && !stream)}
            onClick={() => void begin("hand")}
          >
            {playing === "hand" ? "Listening …" : "Start the click"}
          </button>
          {of.source === "taps" && (
            <button
              type="button"
              className="button"
              disabled={playing !== "hand"}
              onPointerDown={(event) => {
                event.preventDefault();
                tap(event.timeStamp);
              }}
            >
              Tap here
            </button>
          )}
          <span aria-live="polite">{playing === "hand" && !bySound ? `${count} heard` : ""}</span>
        </div>
      </section>
      {measure.isPending && <Loading what="what was measured" />}
      {measure.isError && <Problem error={measure.error} />}
      {measure.data && (
        <p role="status" className="mt-3 text-clean-text font-semibold">
          Kept for this set-up: {measure.data.label}.
        </p>
      )}
    </Dialog>
  );
}
