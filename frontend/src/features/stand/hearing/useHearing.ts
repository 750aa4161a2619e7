import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, type Choices, type Drill, type Setup } from "../../../api/client";
import { queryClient, setupQuery } from "../../../api/queries";
import { MidiReader, type Struck } from "../../../audio/midi";
import { pitchName } from "../../../audio/pitchName";
import type { Player } from "../../../audio/player";
import worklet from "../../../audio/recorder.worklet.ts?worker&url";
import { type Recorded, Recording } from "../../../audio/recording";
import type { Seconds, Stretch } from "../../../audio/schedule";
import { keep, kept } from "../../../ui/kept";
import type { Wanted } from "../session";
import { type HeardBy, hasDevice, keepHeardBy, keptHeardBy, placeName } from "./heardBy";
import type { Hearing, OnNote } from "./hearing";
import { type StandIn, standInKeyboard, standInRecording } from "./standIn";
import { useMicrophone } from "./useMicrophone";
import { useMidi } from "./useMidi";

type Options = {
  choices: Choices;
  drill: Drill;
  onNote: OnNote;
  onPress: (press: "start" | "offered") => void;
  onGone: (sentence: string) => void;
};

/** What goes round until someone stops it is played by a stand-in for so long, in seconds. */
const STAND_IN_SECONDS = 120;

/** By what a take is heard, and how it stands with it: devices, level, what was struck last, and what is measured of it. */
export function useHearing({ choices, drill, onNote, onPress, onGone }: Options) {
  const [by, setState] = useState<HeardBy>(keptHeardBy);
  const [last, setLast] = useState("");
  const player = useRef<Player | null>(null);
  const recording = useRef<Recording | null>(null);
  /** What stands in for a person, made ready; where it plays into; and what ends it. */
  const ready = useRef<StandIn | null>(null);
  const into = useRef<GainNode | null>(null);
  const ending = useRef<AbortController | null>(null);
  const isReal = by.standIn === null;
  const key = useMemo(
    () => ({ source: by.source as Setup["source"], device: by.device, output: "", place: placeName() }),
    [by.source, by.device],
  );
  const asked = useQuery({ ...setupQuery(key), enabled: isReal && by.source !== "by_ear" });
  const setup = isReal && by.source !== "by_ear" ? (asked.data ?? null) : null;
  useEffect(() => {
    // What was measured before set-ups were kept in the studio is of taps in this browser.
    const before = kept<{ ms: number; half?: number }>("latency");
    if (!before || by.source !== "taps" || asked.data?.ms !== null) return;
    keep("latency", null);
    api.keepSetup(key, { way: "hand", ms: before.ms, half: before.half ?? 0 }).then(
      (found) => queryClient.setQueryData(setupQuery(key).queryKey, found),
      () => keep("latency", before),
    );
  }, [asked.data, by.source, key]);
  const latest = useRef({ onNote, onPress, pads: {} as Setup["pads"] });
  latest.current = { onNote, onPress, pads: setup?.pads ?? {} };

  const told = useRef<((eventMs: number) => void) | null>(null);
  const tellOfNotes = useCallback((heard: ((eventMs: number) => void) | null) => {
    told.current = heard;
  }, []);

  const struck = useCallback((one: Struck, at: Seconds, eventMs = 0) => {
    const { onNote, onPress, pads } = latest.current;
    const does = pads[one.kind === "pedal" ? `c${one.control}` : String(one.note)] ?? null;
    const isDown = one.kind === "on" || (one.kind === "pedal" && one.isDown);
    if (one.kind === "on") told.current?.(eventMs);
    if (one.kind === "on") setLast(`${pitchName(one.note)}, velocity ${one.velocity}`);
    if (does === "start" || does === "offered") {
      if (isDown) onPress(does);
    } else if (one.kind !== "pedal") onNote(one, at, does);
  }, []);

  const midi = useMidi(
    by.source === "midi" && isReal,
    by.device,
    (one, eventMs) => struck(one, player.current?.heardAt(eventMs) ?? 0, eventMs),
    onGone,
  );
  const microphone = useMicrophone(by.source === "microphone" && isReal, by.device, onGone);

  const setBy = useCallback((changed: HeardBy) => {
    setState(changed);
    // A stand-in is for a look: whoever opens the stand next plays for himself.
    if (changed.standIn === null) keepHeardBy(changed);
    setLast("");
  }, []);

  /** What stands in makes ready to play what is wanted from a moment of its first turn on; null where a person plays. */
  const prepare = useCallback(
    async (wanted: Wanted, start: Seconds): Promise<StandIn | null> => {
      const who = choices.stand_ins.find((one) => one.value === by.standIn)?.player;
      const playing = player.current;
      if (!who || !playing || !into.current) return null;
      const over = new AbortController();
      ending.current?.abort();
      ending.current = over;
      const { score, part, passes } = wanted;
      const end = passes === null ? start + STAND_IN_SECONDS : passes * score.loop_seconds;
      const of = { player: who, drill, bpm: score.bpm, part, start, end: Math.max(end, start + 1) };
      if (by.source === "microphone") return standInRecording(of, playing.context, into.current, over.signal);
      const reader = new MidiReader();
      const send = (bytes: number[], at: Seconds) => {
        for (const one of reader.read(bytes)) struck(one, at);
      };
      return standInKeyboard(of, send, () => playing.heardAt(performance.now()), over.signal);
    },
    [by, choices, drill, struck],
  );

  const arm = useCallback(
    async (playing: Player, wanted: Wanted) => {
      player.current = playing;
      ready.current = null;
      recording.current?.drop();
      recording.current = null;
      if (!hasDevice(by.source)) return;
      const { context } = playing;
      into.current = new GainNode(context, { gain: 1 });
      if (by.source === "microphone") {
        if (isReal) {
          const { stream, problem } = microphone;
          if (!stream.current)
            throw new Error(problem || "The microphone is not ready yet. Allow it, then start again.");
          context.createMediaStreamSource(stream.current).connect(into.current);
        }
        recording.current = await Recording.begin(context, into.current, worklet);
      }
      ready.current = await prepare(wanted, 0);
    },
    [by, isReal, microphone, prepare],
  );

  const begun = useCallback(
    (stretch: Stretch, wanted: Wanted) => {
      const plays = ready.current;
      ready.current = null;
      if (plays) plays(stretch.base);
      else
        prepare(wanted, Math.max(0, stretch.from - stretch.base)).then(
          (next) => next?.(stretch.base),
          () => {},
        );
    },
    [prepare],
  );

  const finish = useCallback(async (): Promise<Recorded | null> => {
    ending.current?.abort();
    ready.current = null;
    const ended = recording.current;
    recording.current = null;
    return ended ? ended.finish() : null;
  }, []);

  const hearing = useMemo<Hearing>(() => ({ arm, begun, finish }), [arm, begun, finish]);
  const keepPads = useCallback(
    async (pads: Setup["pads"]) => {
      queryClient.setQueryData(setupQuery(key).queryKey, await api.keepSetup(key, { pads }));
    },
    [key],
  );
  return {
    by,
    setBy,
    hearing,
    key,
    setup,
    keepPads,
    tellOfNotes,
    last,
    midi,
    microphone,
    devices:
      by.source === "midi"
        ? midi.devices.map((one) => one.name)
        : by.source === "microphone"
          ? microphone.devices
          : [],
  };
}
