import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import type { Choices, Climb, Drill } from "../../api/client";
import { performanceQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";
import { AfterTheTake } from "./AfterTheTake";
import { Calibrate } from "./Calibrate";
import { keptLatency } from "./latency";
import { PracticeWords } from "./PracticeWords";
import { ALL_OF_IT, loopOf } from "./practice";
import type { Run } from "./runs";
import { SoundWords } from "./SoundWords";
import { type RailHandle, StandRail } from "./StandRail";
import { StandTop } from "./StandTop";
import { type Count, StandWords } from "./StandWords";
import { keepSound, soundFor } from "./sound";
import { TempoByHand } from "./TempoByHand";
import { useAwake } from "./useAwake";
import { useStand } from "./useStand";
import { useStandKeys } from "./useStandKeys";
import { type Subject, useTakes } from "./useTakes";

type Props = {
  subject: Subject;
  climb: Climb | null;
  title: string;
  /** What stands over the big number: the rung, or the drill. */
  above: ReactNode;
  choices: Choices;
  bpm: string;
  /** Tempi one press away; where they are not given, the server says them. */
  steps: { slower: string | null; faster: string | null } | null;
  onTempo: (bpm: string) => void;
  onClick: (click: Drill["click"]) => void;
  onMoved: (climb: Climb) => void;
};

/** The stand: where a drill is played, heard and measured. */
export function StandScreen(props: Props) {
  const { subject, climb, choices, bpm, steps, onTempo } = props;
  const [count, setCount] = useState<Count>({ listen: 1, count: 1, words: "", passes: 2, pulse: null });
  const [source, setSource] = useState("taps");
  const [muted, setMuted] = useState({ click: false, notes: false });
  const [large, setLarge] = useState(false);
  const [calibrating, setCalibrating] = useState(false);
  const [latency, setLatency] = useState(keptLatency);
  const [run, setRun] = useState<Run | null>(null);
  const [practice, setPractice] = useState(ALL_OF_IT);
  const [sound, setSound] = useState(() => soundFor(subject.studentId));
  const [soundOf, setSoundOf] = useState(subject.studentId);
  if (soundOf !== subject.studentId) {
    setSoundOf(subject.studentId);
    setSound(soundFor(subject.studentId));
  }
  const isHidden = practice.beat === "hidden";
  const rail = useRef<RailHandle>(null);
  const performance = useQuery({
    ...performanceQuery({
      drill: subject.drill,
      bpm,
      click: subject.click,
      // Who has to find the beat gets no count that gives it away.
      listen_bars: isHidden ? 0 : count.listen,
      count_bars: isHidden ? 0 : count.count,
      count_words: count.words,
      pulse: isHidden ? null : count.pulse,
      backing: sound.parts ?? [],
      step: practice.step,
      loop: loopOf(practice.loop),
      unmoved: practice.unmoved,
      turns: practice.turns,
      divide: practice.divide,
    }),
    placeholderData: keepPreviousData,
  });
  // What is refused, a click that was mistyped, leaves standing what could be played.
  const played = useLastGood(performance.data);
  // What was hidden at first is not held against anyone, though it was revealed.
  const isPractice = (played?.is_practice ?? false) || practice.beat !== "shown";
  const takes = useTakes(subject, source, latency, choices);
  const stand = useStand({
    performance: played ?? undefined,
    // A part of it goes round until someone stops it.
    passes: isPractice ? null : count.passes,
    clickMuted: muted.click || isHidden,
    notesMuted: muted.notes,
    sound,
    onFrame: (position) => rail.current?.show(position),
    onEnd: (ended) => {
      if (practice.beat === "revealed") setPractice({ ...practice, beat: "shown" });
      if (isPractice) return;
      setRun(ended);
      if (subject.studentId !== null) void takes.finish(ended);
    },
  });
  useAwake(stand.isPlaying);
  const start = () => {
    takes.clear();
    setRun(null);
    void stand.start();
  };
  const toggle = () => (stand.isPlaying ? stand.stop() : start());
  const [slower, faster] = steps
    ? [steps.slower, steps.faster]
    : [played?.slower ?? null, played?.faster ?? null];
  const go = (to: string | null) => to !== null && onTempo(to);

  useStandKeys({
    toggle,
    isPlaying: stand.isPlaying,
    tap: stand.tap,
    slower: () => go(slower),
    faster: () => go(faster),
    mute: () => setMuted((old) => ({ ...old, click: !old.click })),
    large: () => setLarge((old) => !old),
  });

  if (!played)
    return performance.isError ? (
      <Problem error={performance.error} onRetry={() => void performance.refetch()} />
    ) : (
      <Loading what="the drill in seconds" />
    );
  const { reading } = played;
  return (
    <div className="flex flex-col gap-3" data-playing={stand.isPlaying || undefined}>
      <StandTop
        title={props.title}
        above={props.above}
        reading={reading}
        moment={stand.moment}
        passes={isPractice ? null : count.passes}
        large={large}
        words={
          <StandWords
            choices={choices}
            click={subject.click}
            onClick={props.onClick}
            refusal={refusalOf(performance.error)}
            count={count}
            onCount={setCount}
            source={source}
            onSource={setSource}
            playing={stand.isPlaying}
          />
        }
      />
      <StandRail
        reading={reading}
        large={large}
        short={takes.judged !== null && !stand.isPlaying}
        hidden={isHidden}
        ref={rail}
      />
      {!large && (
        <PracticeWords
          drill={subject.drill}
          choices={choices}
          performance={played}
          practice={practice}
          onPractice={setPractice}
        />
      )}
      {!large && (
        <SoundWords
          sound={sound}
          choices={choices}
          onSound={(changed) => {
            setSound(changed);
            keepSound(subject.studentId, changed);
          }}
        />
      )}
      {!large && !climb && (
        <TempoByHand
          performance={played}
          bpm={bpm}
          practice={practice}
          onTempo={onTempo}
          onPractice={setPractice}
        />
      )}
      {isPractice && (
        <p className="text-soft" role="status">
          Practice: it goes round until you stop it, and nothing is measured.
        </p>
      )}
      {stand.message && (
        <p role="alert" className="bg-care text-care-text rounded-lg px-3 py-2 font-semibold">
          {stand.message}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-2 gap-y-2">
        <button type="button" className="button button-start" onClick={toggle}>
          {stand.isPlaying ? "Stop" : "Start"} <Key name="Space" />
        </button>
        <button
          type="button"
          className="button"
          onPointerDown={(event) => {
            event.preventDefault();
            stand.tap(event.timeStamp);
          }}
        >
          Tap along <Key name="J" /> <Key name="F" />
        </button>
        <button type="button" className="button button-quiet" disabled={!slower} onClick={() => go(slower)}>
          Slower <Key name="[" />
        </button>
        <button type="button" className="button button-quiet" disabled={!faster} onClick={() => go(faster)}>
          Faster <Key name="]" />
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-pressed={muted.click}
          onClick={() => setMuted({ ...muted, click: !muted.click })}
        >
          {muted.click ? "Click is muted" : "Mute the click"} <Key name="M" />
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-pressed={muted.notes}
          onClick={() => setMuted({ ...muted, notes: !muted.notes })}
        >
          {muted.notes ? "Notes are muted" : "Mute the notes"}
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-pressed={large}
          onClick={() => setLarge(!large)}
        >
          {large ? "Normal size" : "Large"} <Key name="L" />
        </button>
        <span className="flex-1" />
        {source === "taps" && (
          <button type="button" className="button button-quiet" onClick={() => setCalibrating(true)}>
            {latency ? `Latency ${Math.round(latency.ms)} ms` : "Measure the latency"}
          </button>
        )}
      </div>
      {!large && (
        <AfterTheTake
          subject={subject}
          climb={climb}
          takes={takes}
          run={run}
          playing={stand.isPlaying}
          onMoved={(moved) => {
            takes.clear();
            props.onMoved(moved);
          }}
        />
      )}
      {calibrating && (
        <Calibrate
          drill={choices.calibration}
          onClose={() => setCalibrating(false)}
          onMeasured={setLatency}
        />
      )}
    </div>
  );
}
