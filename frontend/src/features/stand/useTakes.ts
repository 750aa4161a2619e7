import { useCallback, useState } from "react";
import {
  api,
  type Choices,
  type Drill,
  type Ear,
  type Judged,
  type Part,
  type Setup,
  type TakeBody,
} from "../../api/client";
import { sendTake } from "../../api/outbox";
import { forgetWork } from "../../api/queries";
import { freshId } from "../../ui/freshId";
import type { HeardBy } from "./hearing/heardBy";
import { notesOf } from "./hearing/notesOf";
import type { Practice } from "./practice";
import type { Run } from "./runs";
import type { Heard } from "./useStand";

/** What a take is of. */
export type Subject = {
  drill: Drill;
  drillId: number;
  version: number;
  studentId: number | null;
  climbId: number | null;
  rung: number | null;
  /** What the rung plays of the drill; null is all of it. */
  part: Part | null;
  click: Drill["click"];
};

type How = Pick<TakeBody, "source" | "notes" | "ear"> & Partial<Pick<TakeBody, "hidden" | "recording">>;

/** What came back last; `byEar` are runs that wait for someone's ear, the first of them is asked for. */
type State = { judged: Judged | null; error: Error | null; busy: boolean; byEar: Run[] };
const NOTHING: State = { judged: null, error: null, busy: false, byEar: [] };

/** Makes takes of runs, sends them, and holds what came back. */
export function useTakes(
  subject: Subject,
  by: HeardBy,
  setup: Setup | null,
  choices: Choices,
  practice: Practice,
) {
  const [state, setState] = useState<State>(NOTHING);

  const send = useCallback(
    async (run: Run, how: How): Promise<Judged | null> => {
      if (subject.studentId === null) return null;
      // What stands in is late by nothing.
      const isStandIn = by.standIn !== null && how.source !== "by_ear";
      const measured = how.source === by.source && !isStandIn ? setup : null;
      const take: TakeBody = {
        id: freshId(),
        student_id: subject.studentId,
        climb_id: subject.climbId,
        rung: run.rung,
        part: run.part,
        remedy_id: run.remedyId,
        drill_id: subject.drillId,
        version: subject.version,
        bpm: run.bpm,
        click: run.click,
        played_at: run.playedAt,
        start: run.start,
        end: run.end,
        latency_ms: measured?.ms ?? 0,
        latency_half_ms: measured?.half ?? 0,
        is_calibrated: isStandIn || (measured?.ms ?? null) !== null,
        by: "teacher",
        note: isStandIn && how.source !== "stand_in" ? "Played by the stand-in." : "",
        hidden: [],
        recording: null,
        ...how,
      };
      return sendTake(take);
    },
    [subject, by, setup],
  );

  /** Send a run as it was heard; null where nothing but an ear can tell. */
  const heard = useCallback(
    async (run: Run, recorded: Heard | null): Promise<Judged | null> => {
      const drill = practice.remedy?.drill ?? subject.drill;
      if (recorded) {
        const known = by.standIn ? 0 : (setup?.ms ?? null);
        return send(run, {
          ear: null,
          source: "microphone",
          ...(await notesOf(run, recorded, drill, known)),
        });
      }
      const standIn = choices.stand_ins.find((one) => one.value === by.standIn);
      if (standIn && by.source === "stand_in") {
        const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1;
        const player = { ...standIn.player, seed: seed >>> 2 };
        const { bpm, start, end } = run;
        const { notes } = await api.standIn({ drill, bpm, start, end, player, part: run.part });
        return send(run, { source: "stand_in", notes, ear: null });
      }
      if ((by.source === "taps" || by.source === "midi") && run.notes.length && !run.slipped)
        return send(run, { source: by.source, notes: run.notes, ear: null });
      return null;
    },
    [choices, by, setup, subject, practice.remedy, send],
  );

  /** Make takes of what was played, one of each run, in order; what only an ear can tell waits for it. */
  const finish = useCallback(
    async (runs: Run[], recorded: Promise<Heard | null>) => {
      if (!runs.length) return;
      setState({ ...NOTHING, busy: true });
      const found: State = { ...NOTHING, byEar: [] };
      let sound: Heard | null = null;
      try {
        sound = await recorded;
      } catch (error) {
        // What was recorded is lost: an ear can still tell.
        setState({ ...NOTHING, error: error as Error, byEar: runs });
        return;
      }
      for (const run of runs) {
        try {
          const judged = await heard(run, sound);
          if (judged) found.judged = judged;
          else found.byEar.push(run);
        } catch (error) {
          found.error = error as Error;
          // A recording that cannot be listened to leaves the take to an ear.
          if (sound) found.byEar.push(run);
        }
      }
      setState(found);
    },
    [heard],
  );

  /** Mark the run that waits, by ear; the next one waits then. */
  const mark = useCallback(
    async (run: Run, ear: Ear) => {
      setState((old) => ({ ...old, busy: true }));
      const left = (old: State) => old.byEar.filter((one) => one !== run);
      try {
        const judged = await send(run, { source: "by_ear", notes: [], ear });
        setState((old) => ({ ...NOTHING, judged, byEar: left(old) }));
      } catch (error) {
        setState((old) => ({ ...NOTHING, error: error as Error, byEar: left(old) }));
      }
    },
    [send],
  );
  /** What someone says of the take that was judged: it counts, and the machine’s word stays beside it. */
  const hear = useCallback(async (takeId: string, ear: Ear) => {
    setState((old) => ({ ...old, busy: true }));
    try {
      const judged = await api.hearTake(takeId, ear);
      forgetWork();
      setState({ ...NOTHING, judged });
    } catch (error) {
      setState((old) => ({ ...old, busy: false, error: error as Error }));
    }
  }, []);
  const clear = useCallback(() => setState(NOTHING), []);
  /** A take that came in by another way is the one that is shown. */
  const show = useCallback((judged: Judged) => setState({ ...NOTHING, judged }), []);
  return { ...state, finish, mark, hear, clear, show };
}
