import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { api, type Drill } from "../../api/client";
import { performanceQuery } from "../../api/queries";
import { type Made, Player } from "../../audio/player";
import { Dialog } from "../../ui/Dialog";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { keepLatency, type Latency } from "./latency";

type Props = {
  /** A plain click at a calm tempo: what is tapped along to. */
  drill: Drill;
  made: Made;
  onClose: () => void;
  onMeasured: (latency: Latency) => void;
};

/** Measures how late taps arrive, from tapping along with a click. */
export function Calibrate({ drill, made, onClose, onMeasured }: Props) {
  const score = useQuery(
    performanceQuery({
      drill,
      bpm: null,
      click: null,
    }),
  );
  const player = useRef<Player | null>(null);
  const taps = useRef<number[]>([]);
  const [tapped, setTapped] = useState(0);
  const [playing, setPlaying] = useState(false);
  const measure = useMutation({
    mutationFn: ({ due, played }: { due: number[]; played: number[] }) => api.latency(due, played),
    onSuccess: (found) => {
      const latency = { ms: found.latency_ms, half: found.half_width_ms, label: found.label };
      keepLatency(latency);
      onMeasured(latency);
    },
  });
  useEffect(
    () => () => {
      player.current?.close();
      player.current = null;
    },
    [],
  );

  const begin = async () => {
    if (!score.data) return;
    player.current ??= new Player(made);
    const sounding = player.current;
    sounding.mute("notes", true);
    taps.current = [];
    setTapped(0);
    measure.reset();
    setPlaying(true);
    const { performance: clicks } = score.data;
    const stretch = await sounding.start(clicks, score.data.voice);
    if (!stretch) return;
    sounding.endAt = stretch.base + clicks.loop_seconds;
    // Wait until the last click has left the loudspeaker.
    const watch = setInterval(() => {
      if (sounding.isPlaying && sounding.heardAt(performance.now()) < sounding.endAt) return;
      clearInterval(watch);
      if (!sounding.isPlaying) return;
      sounding.stop();
      setPlaying(false);
      measure.mutate({ due: clicks.ticks.map((tick) => stretch.base + tick.at), played: taps.current });
    }, 100);
  };
  const tap = (eventMs: number) => {
    if (!player.current?.isPlaying) return;
    taps.current.push(player.current.heardAt(eventMs));
    setTapped(taps.current.length);
  };
  useHotkeys("j,f", (event) => !event.repeat && tap(event.timeStamp));

  return (
    <Dialog title="How late do taps arrive?" onClose={onClose}>
      <p className="mb-3">
        Tap <Key name="J" /> or the pad once with each click. What the device and your hand add together is
        then taken off every take on this computer, in this browser.
      </p>
      {score.isPending && <Loading what="the click" />}
      {score.isError && <Problem error={score.error} onRetry={() => void score.refetch()} />}
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="button button-first"
          disabled={playing || !score.data}
          onClick={() => void begin()}
        >
          {playing ? "Listening …" : "Start the click"}
        </button>
        <button
          type="button"
          className="button"
          disabled={!playing}
          onPointerDown={(event) => {
            event.preventDefault();
            tap(event.timeStamp);
          }}
        >
          Tap here
        </button>
        <span aria-live="polite">{playing ? `${tapped} taps` : ""}</span>
      </div>
      {measure.isError && <Problem error={measure.error} />}
      {measure.data && (
        <p role="status" className="mt-3 text-clean-text font-semibold">
          Taps arrive {measure.data.label}.
        </p>
      )}
    </Dialog>
  );
}
