import { useCallback, useEffect, useRef, useState } from "react";
import type { Performance } from "../../api/client";
import { type Lost, type Made, Player } from "../../audio/player";
import type { Position, Stretch } from "../../audio/schedule";
import { IDLE, lastBarLine, momentOf, type Run, runStart } from "./runs";
import type { Sound } from "./sound";

const LOST: Record<Lost, string> = {
  device:
    "The sound device stopped or was unplugged. The bars until then are kept. Connect it, then start again.",
  sleep: "Stopped, because the computer slept. The bars until then are kept.",
};

type Options = {
  /** What its sounds are made of. */
  made: Made;
  performance: Performance | undefined;
  /** Passes until it stops by itself; null goes round until someone stops it. */
  passes: number | null;
  clickMuted: boolean;
  notesMuted: boolean;
  sound: Sound;
  onFrame: (position: Position | null) => void;
  onEnd: (run: Run) => void;
};

function setSound(player: Player, sound: Sound): void {
  player.timbre = sound.timbre;
  player.level("click", sound.click);
  player.level("notes", sound.notes);
  player.level("backing", sound.backing);
  player.level("voice", sound.voice);
}

/** Plays what stands on the stand, follows the sound with the screen, and gathers taps into a run. */
export function useStand({
  made,
  performance: given,
  passes,
  clickMuted,
  notesMuted,
  sound,
  onFrame,
  onEnd,
}: Options) {
  const [moment, setMoment] = useState(IDLE);
  const [message, setMessage] = useState("");
  const player = useRef<Player | null>(null);
  // `reached` is the latest moment seen: the clocks may slip back, what was heard stays heard.
  const run = useRef<{ stretch: Stretch; bpm: string; playedAt: string; reached: number } | null>(null);
  const taps = useRef<number[]>([]);
  const starting = useRef(false);
  const latest = useRef({ given, passes, onFrame, onEnd });
  latest.current = { given, passes, onFrame, onEnd };

  const endAt = useCallback(
    (stretch: Stretch) =>
      latest.current.passes === null
        ? Number.POSITIVE_INFINITY
        : stretch.base + latest.current.passes * stretch.score.loop_seconds,
    [],
  );

  // Another tempo or click while playing takes over at the next bar line, and the take begins anew there.
  const follow = useCallback(() => {
    const { given } = latest.current;
    const playing = player.current;
    if (!given || !playing?.isPlaying || !run.current) return;
    if (run.current.stretch.score === given.performance) return;
    const stretch = playing.change(given.performance);
    if (!stretch) return;
    const sameTempo = run.current.bpm === given.performance.bpm;
    if (!sameTempo) taps.current = [];
    run.current = { ...run.current, stretch, bpm: given.performance.bpm };
    playing.endAt = endAt(stretch);
  }, [endAt]);

  const finish = useCallback((at: number | null) => {
    const [playing, begun] = [player.current, run.current];
    if (!playing || !begun) return;
    const { stretch, bpm, playedAt } = begun;
    const moment = at ?? Math.max(begun.reached, playing.heardAt(performance.now()));
    playing.stop();
    run.current = null;
    setMoment(IDLE);
    latest.current.onFrame(null);
    const [start, end] = [runStart(stretch), lastBarLine(stretch, moment)];
    if (end <= start) {
      if (moment > stretch.base) setMessage("Less than a bar was played, so nothing was measured.");
      return;
    }
    const onsets = taps.current.map((tap) => tap - stretch.base);
    latest.current.onEnd({ bpm, start, end, onsets, playedAt, slipped: playing.slipped });
  }, []);

  const start = useCallback(async () => {
    // The first start fetches words; a second press meanwhile is the same one.
    if (!given || player.current?.isPlaying || starting.current) return;
    starting.current = true;
    setMessage("");
    player.current ??= new Player(made);
    const playing = player.current;
    playing.onLost = (why) => {
      setMessage(LOST[why]);
      finish(null);
    };
    taps.current = [];
    playing.mute("click", clickMuted);
    playing.mute("notes", notesMuted);
    setSound(playing, sound);
    try {
      const stretch = await playing.start(given.performance, given.voice);
      // Stopped before anything sounded.
      if (!playing.isPlaying) return;
      const playedAt = new Date().toISOString();
      run.current = { stretch, bpm: given.performance.bpm, playedAt, reached: 0 };
      playing.endAt = endAt(stretch);
      // What was changed while it was starting.
      follow();
    } catch {
      setMessage("This browser gives no sound. Check that a loudspeaker is connected, then start again.");
    } finally {
      starting.current = false;
    }
  }, [made, given, clickMuted, notesMuted, sound, finish, follow, endAt]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: it is followed whenever another one is given.
  useEffect(follow, [given, follow]);

  useEffect(() => player.current?.mute("click", clickMuted), [clickMuted]);
  useEffect(() => player.current?.mute("notes", notesMuted), [notesMuted]);
  useEffect(() => {
    if (player.current) setSound(player.current, sound);
  }, [sound]);

  const isPlaying = moment.phase !== "idle";
  useEffect(() => {
    let frame = 0;
    const show = () => {
      frame = requestAnimationFrame(show);
      const [playing, begun] = [player.current, run.current];
      if (!playing?.isPlaying || !begun) return;
      const at = playing.heardAt(performance.now());
      begun.reached = Math.max(begun.reached, at);
      if (at >= playing.endAt) {
        finish(playing.endAt);
        return;
      }
      const position = playing.positionAt(at);
      if (!position) return;
      const now = momentOf(position);
      setMoment((old) =>
        old.phase === now.phase &&
        old.word === now.word &&
        old.division === now.division &&
        old.bar === now.bar &&
        old.pass === now.pass
          ? old
          : now,
      );
      latest.current.onFrame(now.phase === "play" ? position : null);
    };
    frame = requestAnimationFrame(show);
    const hidden = () => {
      if (document.visibilityState !== "hidden" || !player.current?.isPlaying) return;
      setMessage("Stopped, because this page went out of sight. The bars until then are kept.");
      finish(null);
    };
    document.addEventListener("visibilitychange", hidden);
    return () => {
      cancelAnimationFrame(frame);
      document.removeEventListener("visibilitychange", hidden);
    };
  }, [finish]);

  useEffect(
    () => () => {
      player.current?.close();
      player.current = null;
    },
    [],
  );

  /** A tap, by the time stamp of its event. */
  const tap = useCallback((eventMs: number) => {
    const playing = player.current;
    if (playing?.isPlaying) taps.current.push(playing.heardAt(eventMs));
  }, []);

  return { moment, isPlaying, message, start, stop: () => finish(null), tap };
}
