import { useCallback, useEffect, useRef, useState } from "react";
import type { Performance } from "../../api/client";
import { lacking } from "../../audio/lacking";
import { type Lost, type Made, Player } from "../../audio/player";
import type { Recorded } from "../../audio/recording";
import type { Position, Stretch } from "../../audio/schedule";
import type { Hearing, OnNote } from "./hearing/hearing";
import { IDLE, type Moment, momentOf, type Run } from "./runs";
import * as sessions from "./session";
import type { Sound } from "./sound";

const LOST: Record<Lost, string> = {
  device:
    "The sound device stopped or was unplugged. The bars until then are kept. Connect it, then start again.",
  sleep: "Stopped, because the computer slept. The bars until then are kept.",
};
const HIDDEN = "Stopped, because this page went out of sight. The bars until then are kept.";
const TOO_SHORT = "Less than a bar was played, so nothing was measured.";
const SILENT = "This browser gives no sound. Check that a loudspeaker is connected, then start again.";

/** What was recorded of it, and the clicks that may be heard in that, on the clock of the sound. */
export type Heard = Recorded & { clicks: number[]; alone: number };

type Options = {
  /** What its sounds are made of. */
  made: Made;
  performance: Pick<Performance, "performance" | "voice"> | undefined;
  /** What a take of it is of, and how often it goes round. */
  of: Omit<sessions.Wanted, "score">;
  clickMuted: boolean;
  notesMuted: boolean;
  sound: Sound;
  /** What hears the take, and by what. */
  hearing: Hearing;
  onFrame: (position: Position | null) => void;
  /** What was played, a run for each tempo and click, in order; none where it was too short; and what was recorded. */
  onEnd: (runs: Run[], recorded: Promise<Heard | null>) => void;
};

function setSound(player: Player, sound: Sound): void {
  player.timbre = sound.timbre;
  player.roles = sound.roles;
  player.isUnmarked = sound.unmarked;
  player.level("click", sound.click);
  player.level("notes", sound.notes);
  player.level("backing", sound.backing);
  player.level("voice", sound.voice);
}

/** Plays what stands on the stand, and follows the sound with the screen; what happens to it is `session.ts`. */
export function useStand({
  made,
  performance: given,
  of,
  clickMuted,
  notesMuted,
  sound,
  hearing,
  onFrame,
  onEnd,
}: Options) {
  const [moment, setMoment] = useState(IDLE);
  /** From the press of Start to whatever ends it: a moment is known a little later. */
  const [isPlaying, setPlaying] = useState(false);
  const [message, setMessage] = useState("");
  const player = useRef<Player | null>(null);
  const session = useRef<sessions.Session>(sessions.IDLE_SESSION);
  const wanted = given && { score: given.performance, ...of };
  const latest = useRef({ wanted, hearing, clickMuted, onFrame, onEnd });
  latest.current = { wanted, hearing, clickMuted, onFrame, onEnd };

  const stop = useCallback((at: number | null, why = "") => {
    const playing = player.current;
    const moment = at ?? (playing?.isPlaying ? playing.heardAt(performance.now()) : null);
    if (moment !== null) session.current = sessions.reached(session.current, moment);
    const clicks = sessions.clicksOf(session.current, moment ?? 0);
    session.current = sessions.stop(session.current, at, playing?.slipped ?? false);
    playing?.stop();
    setPlaying(false);
    setMoment(IDLE);
    latest.current.onFrame(null);
    if (why) setMessage(why);
    const { hearing, clickMuted } = latest.current;
    const recorded = hearing
      .finish()
      .then((found) => found && { ...found, ...(clickMuted ? { clicks: [], alone: 0 } : clicks) });
    if (session.current.phase !== "ending") {
      recorded.catch(() => {});
      return;
    }
    const { runs, short } = session.current;
    session.current = sessions.taken(session.current);
    if (short && !why) setMessage(TOO_SHORT);
    latest.current.onEnd(runs, recorded);
  }, []);

  /** What is wanted and not played yet takes over at the next bar line. */
  const follow = useCallback(() => {
    const playing = player.current;
    const next = sessions.pending(session.current);
    if (!next || !playing?.isPlaying) return;
    const stretch = playing.change(next.score);
    if (!stretch) return;
    session.current = sessions.takenOver(session.current, stretch, new Date().toISOString());
    latest.current.hearing.begun(stretch, next);
    playing.endAt = sessions.endsAt(session.current);
  }, []);

  const start = useCallback(async () => {
    const { wanted } = latest.current;
    if (!given || !wanted || session.current.phase !== "idle") return;
    const missing = lacking();
    if (missing) {
      setMessage(missing);
      return;
    }
    session.current = sessions.start(session.current, wanted);
    setMessage("");
    setPlaying(true);
    player.current ??= new Player(made);
    const playing = player.current;
    playing.onLost = (why) => stop(null, LOST[why]);
    playing.mute("click", clickMuted);
    playing.mute("notes", notesMuted);
    setSound(playing, sound);
    let stretch: Stretch | null = null;
    try {
      await latest.current.hearing.arm(playing, wanted);
    } catch (error) {
      stop(null, (error as Error).message);
      return;
    }
    if (session.current.phase !== "starting") return;
    try {
      stretch = await playing.start(given.performance, given.voice);
    } catch {
      stop(null, SILENT);
      return;
    }
    // Cancelled by a stop.
    if (!stretch) return;
    session.current = sessions.started(session.current, stretch, new Date().toISOString());
    latest.current.hearing.begun(stretch, wanted);
    playing.endAt = sessions.endsAt(session.current);
    follow();
  }, [made, given, clickMuted, notesMuted, sound, stop, follow]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: what is wanted is another one when one of these is.
  useEffect(() => {
    const { wanted } = latest.current;
    if (!wanted) return;
    session.current = sessions.want(session.current, wanted);
    follow();
  }, [given, of.click, of.rung, of.passes, of.isMeasured, of.remedyId, of.part, follow]);

  useEffect(() => {
    if (!isPlaying) return;
    // A reload in the middle would end a take that nobody has sent yet.
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [isPlaying]);

  useEffect(() => player.current?.mute("click", clickMuted), [clickMuted]);
  useEffect(() => player.current?.mute("notes", notesMuted), [notesMuted]);
  useEffect(() => {
    if (player.current) setSound(player.current, sound);
  }, [sound]);

  useEffect(() => {
    let frame = 0;
    const show = () => {
      frame = requestAnimationFrame(show);
      const playing = player.current;
      if (!playing?.isPlaying || session.current.phase !== "playing") return;
      const at = playing.heardAt(performance.now());
      session.current = sessions.reached(session.current, at);
      if (at >= playing.endAt) {
        stop(playing.endAt);
        return;
      }
      const position = playing.positionAt(at);
      if (!position) return;
      const now = momentOf(position);
      setMoment((old) => (isAlike(old, now) ? old : now));
      latest.current.onFrame(now.phase === "play" ? position : null);
    };
    frame = requestAnimationFrame(show);
    const hidden = () => {
      if (document.visibilityState === "hidden" && session.current.phase !== "idle") stop(null, HIDDEN);
    };
    document.addEventListener("visibilitychange", hidden);
    return () => {
      cancelAnimationFrame(frame);
      document.removeEventListener("visibilitychange", hidden);
    };
  }, [stop]);

  useEffect(
    () => () => {
      session.current = sessions.IDLE_SESSION;
      player.current?.close();
      player.current = null;
    },
    [],
  );

  /** A tap, by the time stamp of its event, and by which key. */
  const tap = useCallback((eventMs: number, key: string | null = null) => {
    const playing = player.current;
    if (playing?.isPlaying) session.current = sessions.tapped(session.current, playing.heardAt(eventMs), key);
  }, []);

  /** A note that was struck or let go, on the clock of the sound. */
  const strike = useCallback<OnNote>((struck, at, stroke) => {
    session.current =
      struck.kind === "on"
        ? sessions.tapped(session.current, at, stroke, { pitch: struck.note, level: struck.velocity })
        : sessions.letGo(session.current, at, struck.note);
  }, []);

  /** How far into its turn a moment of the screen's clock lies, in seconds; null where nothing goes round yet. */
  const within = useCallback((eventMs: number): number | null => {
    const playing = player.current;
    if (!playing?.isPlaying) return null;
    const position = playing.positionAt(playing.heardAt(eventMs));
    return position && position.turn >= 0 ? position.within : null;
  }, []);

  return { moment, isPlaying, message, start, stop: (why = "") => stop(null, why), tap, strike, within };
}

function isAlike(one: Moment, other: Moment): boolean {
  return (
    one.phase === other.phase &&
    one.word === other.word &&
    one.division === other.division &&
    one.bar === other.bar &&
    one.pass === other.pass &&
    one.cue === other.cue &&
    one.since === other.since
  );
}
