import { type ReactNode, useRef, useState } from "react";
import type { Choices, Climb, Drill } from "../../api/client";
import { Loading } from "../../ui/Loading";
import { takeOffered } from "../../ui/offered";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { AfterTheTake } from "./AfterTheTake";
import { Calibrate } from "./Calibrate";
import { USUAL } from "./count";
import { FootSwitch } from "./FootSwitch";
import { keepSwitch, keptSwitch, switchName, useFootSwitch } from "./footSwitch";
import { keptLatency } from "./latency";
import { PracticeWords } from "./PracticeWords";
import { ALL_OF_IT } from "./practice";
import { StandButtons } from "./StandButtons";
import { StandFolds } from "./StandFolds";
import { type RailHandle, StandRail } from "./StandRail";
import { StandTop } from "./StandTop";
import { StandWords } from "./StandWords";
import { keepSound, soundFor } from "./sound";
import { useAwake } from "./useAwake";
import { useLarge } from "./useLarge";
import { usePlayed } from "./usePlayed";
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
  /** One press slower or faster, null at an end; where none is given it is a tempo that the server says. */
  steps: { slower: (() => void) | null; faster: (() => void) | null } | null;
  onTempo: (bpm: string) => void;
  onClick: (click: Drill["click"]) => void;
  onMoved: (climb: Climb) => void;
};

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
  const [practice, setPractice] = useState(ALL_OF_IT);
  const [sound, setSound] = useState(() => soundFor(subject.studentId));
  const [soundOf, setSoundOf] = useState(subject.studentId);
  if (soundOf !== subject.studentId) {
    setSoundOf(subject.studentId);
    setSound(soundFor(subject.studentId));
  }
  const rail = useRef<RailHandle>(null);
  const { asked, played, isPractice, isHidden } = usePlayed(subject, bpm, count, practice, sound);
  const takes = useTakes(subject, source, latency, choices);
  const changeSound = (changed: typeof sound) => {
    setSound(changed);
    keepSound(subject.studentId, changed);
  };
  const stand = useStand({
    made: choices,
    performance: played ?? undefined,
    of: {
      click: subject.click,
      rung: subject.rung,
      // A part of it goes round until someone stops it.
      passes: isPractice ? null : count.passes,
      isPractice,
    },
    clickMuted: muted.click || isHidden,
    notesMuted: muted.notes,
    sound,
    onFrame: (position) => rail.current?.show(position),
    onEnd: (runs) => {
      if (practice.beat === "revealed") setPractice({ ...practice, beat: "shown" });
      if (subject.studentId !== null) void takes.finish(runs);
    },
  });
  useAwake(stand.isPlaying);
  useLarge(large);
  const start = () => {
    takes.clear();
    void stand.start();
  };
  const toggle = () => (stand.isPlaying ? stand.stop() : start());
  const to = (bpm: string | undefined) => (bpm === undefined ? null : () => onTempo(bpm));
  const { slower, faster } = steps ?? { slower: to(played?.slower), faster: to(played?.faster) };
  const go = (step: (() => void) | null) => {
    if (!step) return;
    setPractice((old) => ({ ...old, bpm: null }));
    step();
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
    return asked.isError ? (
      <Problem error={asked.error} onRetry={() => void asked.refetch()} />
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
            refusal={refusalOf(asked.error)}
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
        <StandFolds
          choices={choices}
          performance={played}
          sound={sound}
          onSound={changeSound}
          bpm={bpm}
          practice={practice}
          typed={climb !== null}
          onTempo={(to, divide) => {
            // On a climb another tempo is tried beside its rungs; the rung itself ends that.
            setPractice({ ...practice, divide, bpm: climb && to !== bpm ? to : null });
            if (!climb) onTempo(to);
          }}
          latency={source === "taps" ? { measured: latency, onMeasure: () => setOpen("latency") } : null}
          footSwitch={{ name: switchName(footSwitch), onChoose: () => setOpen("switch") }}
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
