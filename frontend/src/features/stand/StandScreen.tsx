import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import type { Choices, Climb, Drill } from "../../api/client";
import { performanceQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { takeOffered } from "../../ui/offered";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";
import { AfterTheTake } from "./AfterTheTake";
import { Calibrate } from "./Calibrate";
import { USUAL } from "./count";
import { FootSwitch } from "./FootSwitch";
import { keepSwitch, keptSwitch, switchName, useFootSwitch } from "./footSwitch";
import { keptLatency } from "./latency";
import { PracticeWords } from "./PracticeWords";
import { ALL_OF_IT, loopOf, reduceOf } from "./practice";
import type { Run } from "./runs";
import { SoundWords } from "./SoundWords";
import { StandButtons } from "./StandButtons";
import { type RailHandle, StandRail } from "./StandRail";
import { StandTop } from "./StandTop";
import { StandWords } from "./StandWords";
import { keepSound, soundFor } from "./sound";
import { TempoByHand } from "./TempoByHand";
import { useAwake } from "./useAwake";
import { useLarge } from "./useLarge";
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

/** Before a beat that has to be found: nothing that gives it away. */
const NOTHING_BEFORE = { listen_bars: 0, say_bars: 0, count_bars: 0, count_beats: 0, count_words: "" };
const SILENT = { what: "nothing", words: "count" } as const;

/** The stand: where a drill is played, heard and measured. */
export function StandScreen(props: Props) {
  const { subject, climb, choices, bpm, steps, onTempo } = props;
  const [count, setCount] = useState(USUAL);
  const [source, setSource] = useState("taps");
  const [muted, setMuted] = useState({ click: false, notes: false });
  const [large, setLarge] = useState(false);
  const [open, setOpen] = useState<"latency" | "switch" | null>(null);
  const [footSwitch, setFootSwitch] = useState(keptSwitch);
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
      bpm: practice.bpm ?? bpm,
      click: subject.click,
      // Who has to find the beat gets no count that gives it away.
      before: { ...(isHidden ? NOTHING_BEFORE : count.before), aloud: sound.aloud },
      spoken: isHidden ? SILENT : sound.spoken,
      pulse: isHidden ? null : count.pulse,
      backing: sound.parts ?? [],
      step: practice.step,
      loop: loopOf(practice.loop),
      unmoved: practice.unmoved,
      turns: practice.turns,
      divide: practice.divide,
      reduce: reduceOf(practice.part),
      slow: practice.slow ? practice.share : null,
    }),
    placeholderData: keepPreviousData,
  });
  // What is refused, a click that was mistyped, leaves standing what could be played.
  const played = useLastGood(performance.data);
  // What was hidden at first is not held against anyone, though it was revealed.
  const isPractice = (played?.is_practice ?? false) || practice.beat !== "shown" || practice.bpm !== null;
  const takes = useTakes(subject, source, latency, choices);
  const changeSound = (changed: typeof sound) => {
    setSound(changed);
    keepSound(subject.studentId, changed);
  };
  const stand = useStand({
    made: choices,
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
  useLarge(large);
  const start = () => {
    takes.clear();
    setRun(null);
    void stand.start();
  };
  const toggle = () => (stand.isPlaying ? stand.stop() : start());
  const [slower, faster] = steps
    ? [steps.slower, steps.faster]
    : [played?.slower ?? null, played?.faster ?? null];
  const go = (to: string | null) => {
    if (to === null) return;
    setPractice((old) => ({ ...old, bpm: null }));
    onTempo(to);
  };

  useStandKeys({
    toggle,
    isPlaying: stand.isPlaying,
    tap: stand.tap,
    slower: () => go(slower),
    faster: () => go(faster),
    mute: () => setMuted((old) => ({ ...old, click: !old.click })),
    large: () => setLarge((old) => !old),
    slow: () => setPractice((old) => ({ ...old, slow: !old.slow })),
  });

  useFootSwitch(footSwitch, {
    toggle,
    offered: takeOffered,
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
        meanwhile={choices.meanwhile.find((one) => one.value === count.meanwhile)?.why ?? ""}
        words={
          <StandWords
            choices={choices}
            click={subject.click}
            onClick={props.onClick}
            refusal={refusalOf(performance.error)}
            count={count}
            onCount={setCount}
            sound={sound}
            onSound={changeSound}
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
      <PracticeWords
        drill={subject.drill}
        choices={choices}
        performance={played}
        practice={practice}
        large={large}
        onPractice={setPractice}
      />
      {played.performance.told.map((sentence) => (
        <p key={sentence} className="text-soft">
          {sentence}
        </p>
      ))}
      {!large && (
        <div className="stand-folds flex flex-wrap items-baseline gap-x-6">
          <SoundWords sound={sound} choices={choices} figures={reading.click} onSound={changeSound} />
          <TempoByHand
            performance={played}
            bpm={practice.bpm ?? bpm}
            divide={practice.divide}
            typed={climb !== null}
            onChange={(to, divide) => {
              // On a climb another tempo is tried beside its rungs; the rung itself ends that.
              setPractice({ ...practice, divide, bpm: climb && to !== bpm ? to : null });
              if (!climb) onTempo(to);
            }}
          />
          <span className="flex-1" />
          {source === "taps" && (
            <button
              type="button"
              className="button button-small button-quiet"
              onClick={() => setOpen("latency")}
            >
              {latency ? `Latency ${Math.round(latency.ms)} ms` : "Measure the latency"}
            </button>
          )}
          <button
            type="button"
            className="button button-small button-quiet"
            onClick={() => setOpen("switch")}
          >
            Foot switch: {switchName(footSwitch)}
          </button>
        </div>
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
      <StandButtons
        playing={stand.isPlaying}
        onToggle={toggle}
        onTap={stand.tap}
        onSlower={slower ? () => go(slower) : null}
        onFaster={faster ? () => go(faster) : null}
        muted={muted}
        onMuted={setMuted}
        large={large}
        onLarge={setLarge}
      />
      <AfterTheTake
        subject={subject}
        climb={climb}
        takes={takes}
        run={run}
        playing={stand.isPlaying}
        large={large}
        onMoved={(moved) => {
          takes.clear();
          props.onMoved(moved);
        }}
      />
      {open === "latency" && (
        <Calibrate
          drill={choices.calibration}
          made={choices}
          onClose={() => setOpen(null)}
          onMeasured={setLatency}
        />
      )}
      {open === "switch" && (
        <FootSwitch
          chosen={footSwitch}
          onChosen={(key) => {
            setFootSwitch(key);
            keepSwitch(key);
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </div>
  );
}
