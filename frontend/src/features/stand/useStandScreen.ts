import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { Choices, Climb, Drill, KeptRemedy, StudentDetails } from "../../api/client";
import { takeOffered } from "../../ui/offered";
import { useRootClass } from "../../ui/useRootClass";
import type { WrittenHandle } from "../../ui/written/Engraved";
import { USUAL } from "./count";
import { useFootSwitch } from "./footSwitch";
import type { OnNote } from "./hearing/hearing";
import { useHearing } from "./hearing/useHearing";
import { ALL_OF_IT, type Practice, partDue, practiceOf } from "./practice";
import type { RailHandle } from "./StandRail";
import { useAwake } from "./useAwake";
import { useCircuit } from "./useCircuit";
import { usePlayed } from "./usePlayed";
import { useStand } from "./useStand";
import { useStandKeys } from "./useStandKeys";
import { useStandSettings } from "./useStandSettings";
import { useTakeBack } from "./useTakeBack";
import { type Subject, useTakes } from "./useTakes";
import { useTappedTempo } from "./useTappedTempo";

export type StandProps = {
  subject: Subject;
  climb: Climb | null;
  /** Who and what, as links. */
  title: ReactNode;
  /** What stands over the big number: the rung, or the drill. */
  above: ReactNode;
  choices: Choices;
  /** How the stand is set for the student; null for nobody. */
  stand: StudentDetails["stand"] | null;
  bpm: string;
  /** One press slower or faster, null at an end; where none is given it is a tempo that the server says. */
  steps: { slower: (() => void) | null; faster: (() => void) | null } | null;
  onTempo: (bpm: string) => void;
  onClick: (click: Drill["click"]) => void;
  onMoved: (climb: Climb) => void;
  /** A newer version of what stands here, to be taken when no take is under way; null without. */
  newer: { version: number; take: () => void } | null;
  /** Whether something is played, or a take of it is not judged yet. */
  onBusy: (isBusy: boolean) => void;
  /** A remedy that is on the stand when it is opened. */
  remedy?: KeptRemedy | null;
  /** A tempo, a division, a part or a step to try beside the rungs when it is opened. */
  tried?: Partial<Pick<Practice, "bpm" | "only" | "part" | "step">>;
  /** Passes each in turn with the teacher, when it is opened: call and answer. */
  turns?: number | null;
  /** Whom it may offer another rung to; null where none fits. */
  onRung: ((bpm: string) => boolean) | null;
};

/** All that the stand's screen shows and does: what is chosen on it, what is played, heard and measured. */
export function useStandScreen(props: StandProps) {
  const { subject, choices, bpm, steps, onTempo } = props;
  const [count, setCount] = useState(USUAL);
  const [muted, setMuted] = useState({ click: false, notes: false });
  const [large, setLarge] = useState(false);
  const [open, setOpen] = useState<"set up" | null>(null);
  // What opens over the stand, and over its drawer.
  const [over, setOver] = useState<"latency" | "switch" | "pads" | null>(null);
  const [practice, setPractice] = useState<Practice>(() =>
    props.remedy ? practiceOf(props.remedy) : { ...ALL_OF_IT, turns: props.turns ?? null, ...props.tried },
  );
  const { sound, footSwitch, changeSound, chooseSwitch } = useStandSettings(subject.studentId, props.stand);
  const [shown, setShown] = useState(false);
  const isSoundFirst = (props.stand?.sound_first ?? choices.settings_of_studio.sound_first) && !shown;
  const rail = useRef<RailHandle>(null);
  const notation = useRef<WrittenHandle>(null);
  const part = useMemo(() => partDue(practice, subject.part), [practice, subject.part]);
  const { asked, played, written, isPractice, isMeasured, isHidden } = usePlayed(
    subject,
    bpm,
    count,
    practice,
    sound,
  );
  const latest = useRef<{ strike: OnNote; toggle: () => void; lost: (why: string) => void } | null>(null);
  const hearing = useHearing({
    choices,
    drill: practice.remedy?.drill ?? subject.drill,
    onNote: (struck, at, stroke) => latest.current?.strike(struck, at, stroke),
    onPress: (press) => (press === "start" ? latest.current?.toggle() : takeOffered()),
    onGone: (why) => latest.current?.lost(why),
  });
  const takes = useTakes(subject, hearing.by, hearing.setup, choices, practice);
  const stand = useStand({
    made: choices,
    performance: played ?? undefined,
    of: {
      // A remedy brings its own click; what is practised by itself is on no rung.
      click: practice.remedy?.drill.click ?? subject.click,
      rung: isPractice ? null : subject.rung,
      part: isPractice ? part : subject.part,
      remedyId: practice.remedy?.id ?? null,
      // A part of it goes round until someone stops it.
      passes: isPractice ? null : count.passes,
      isMeasured,
    },
    clickMuted: muted.click || isHidden,
    notesMuted: muted.notes,
    sound,
    hearing: hearing.hearing,
    onFrame: (position) => rail.current?.show(position),
    onEnd: (runs, recorded) => {
      if (practice.beat === "revealed") setPractice({ ...practice, beat: "shown" });
      if (subject.studentId !== null) void takes.finish(runs, recorded);
      else recorded.catch(() => {});
    },
  });
  // On a climb a tempo is tried beside its rungs, and taking it back leads to the rung again.
  const tried = props.climb ? (practice.bpm ?? "") : bpm;
  const { takeBack, before } = useTakeBack(tried, played?.reading.bpm ?? bpm, stand.isPlaying, (to) =>
    props.climb ? setPractice((old) => ({ ...old, bpm: to || null })) : onTempo(to),
  );
  useCircuit(subject.drillId, practice, setPractice, stand.moment, played?.bars ?? 0, count.passes ?? 1);
  useAwake(stand.isPlaying);
  const isBusy = stand.isPlaying || takes.busy || takes.byEar.length > 0;
  const { onBusy } = props;
  useEffect(() => onBusy(isBusy), [isBusy, onBusy]);
  useRootClass("is-large", large);
  useRootClass("is-playing", stand.isPlaying);
  const start = () => {
    takes.clear();
    void stand.start();
  };
  const toggle = () => (stand.isPlaying ? stand.stop() : start());
  latest.current = {
    strike: stand.strike,
    toggle,
    lost: (why) => stand.isPlaying && stand.stop(why),
  };
  const to = (bpm: string | undefined) => (bpm === undefined ? null : () => onTempo(bpm));
  const { slower, faster } = steps ?? { slower: to(played?.slower), faster: to(played?.faster) };
  /** A step of the tempo ends one that was tried by hand. */
  const go = (step: (() => void) | null) => {
    if (!step) return;
    setPractice((old) => ({ ...old, bpm: null }));
    step();
  };

  /** Another tempo, typed or tapped: on a climb it is tried beside its rungs, and the rung itself ends that. */
  const tempoByHand = (to: string, divide: Practice["divide"]) => {
    setPractice({ ...practice, divide, bpm: props.climb && to !== bpm ? to : null });
    if (!props.climb) onTempo(to);
  };
  const tapped = useTappedTempo((to) => tempoByHand(to, practice.divide));

  useStandKeys({
    toggle,
    isPlaying: stand.isPlaying,
    tap: stand.tap,
    slower: () => go(slower),
    faster: () => go(faster),
    setUp: () => setOpen((old) => (old ? null : "set up")),
    mute: () => setMuted((old) => ({ ...old, click: !old.click })),
    large: () => setLarge((old) => !old),
    slow: () => setPractice((old) => ({ ...old, slow: !old.slow })),
    compare: () =>
      setPractice((old) =>
        old.against ? { ...old, against: { ...old.against, isHeard: !old.against.isHeard } } : old,
      ),
  });

  useFootSwitch(footSwitch, {
    toggle,
    offered: takeOffered,
  });

  /** Back to all of the drill, as it is written. */
  const toTheDrill = () => {
    takes.clear();
    setPractice(ALL_OF_IT);
  };

  return {
    isSoundFirst,
    showFigures: () => setShown(true),
    toTheDrill,
    practiseRemedy: (remedy: KeptRemedy) => {
      takes.clear();
      setPractice(practiceOf(remedy));
    },
    /** Once more; so many passes of it, where that is what would settle it. */
    again: (passes: number | null) => {
      if (passes !== null) flushSync(() => setCount((old) => ({ ...old, passes })));
      start();
    },
    count,
    setCount,
    hearing,
    muted,
    setMuted,
    large,
    setLarge,
    tempoByHand,
    tapped,
    isSetUp: open === "set up",
    setOpen,
    over,
    setOver,
    practice,
    setPractice,
    part,
    before,
    takeBack,
    sound,
    changeSound,
    footSwitch,
    chooseSwitch,
    rail,
    notation,
    asked,
    played,
    written,
    isPractice,
    isMeasured,
    isHidden,
    filesOf:
      subject.studentId === null || isPractice
        ? null
        : {
            studentId: subject.studentId,
            climbId: subject.climbId,
            rung: subject.rung,
            drillId: subject.drillId,
            version: subject.version,
            bpm,
            part: subject.part,
          },
    takes,
    stand,
    toggle,
    slower: slower ? () => go(slower) : null,
    faster: faster ? () => go(faster) : null,
  };
}
