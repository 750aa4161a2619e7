import { useCallback, useState } from "react";
import { api, type Choices, type Drill, type Judged, type TakeBody } from "../../api/client";
import { sendTake } from "../../api/outbox";
import type { Latency } from "./latency";
import type { Run } from "./runs";

/** What a take is of. */
export type Subject = {
  drill: Drill;
  drillId: number;
  version: number;
  studentId: number | null;
  climbId: number | null;
  rung: number | null;
  click: Drill["click"];
};

type State = { judged: Judged | null; error: Error | null; busy: boolean; askEar: boolean };
const NOTHING: State = { judged: null, error: null, busy: false, askEar: false };

/** Makes takes of runs, sends them, and holds what came back. */
export function useTakes(subject: Subject, source: string, latency: Latency | null, choices: Choices) {
  const [state, setState] = useState<State>(NOTHING);

  const send = useCallback(
    async (run: Run, how: Pick<TakeBody, "source" | "onsets" | "ear">) => {
      if (subject.studentId === null) return;
      setState({ ...NOTHING, busy: true });
      const measured = how.source === "taps" ? latency : null;
      const take: TakeBody = {
        id: crypto.randomUUID(),
        student_id: subject.studentId,
        climb_id: subject.climbId,
        rung: subject.rung,
        drill_id: subject.drillId,
        version: subject.version,
        bpm: run.bpm,
        click: subject.click,
        played_at: run.playedAt,
        start: run.start,
        end: run.end,
        latency_ms: measured?.ms ?? 0,
        is_calibrated: how.source === "stand_in" || measured !== null,
        by: "teacher",
        note: "",
        ...how,
      };
      try {
        setState({ ...NOTHING, judged: await sendTake(take) });
      } catch (error) {
        setState({ ...NOTHING, error: error as Error });
      }
    },
    [subject, latency],
  );

  const finish = useCallback(
    async (run: Run) => {
      const standIn = choices.stand_ins.find((one) => one.value === source);
      if (standIn) {
        setState({ ...NOTHING, busy: true });
        try {
          const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1;
          const player = { ...standIn.player, seed: seed >>> 2 };
          const { drill } = subject;
          const { onsets } = await api.standIn({
            drill,
            bpm: run.bpm,
            start: run.start,
            end: run.end,
            player,
          });
          await send(run, { source: "stand_in", onsets, ear: null });
        } catch (error) {
          setState({ ...NOTHING, error: error as Error });
        }
      } else if (source === "taps" && run.onsets.length && !run.slipped) {
        await send(run, { source: "taps", onsets: run.onsets, ear: null });
      } else {
        setState({ ...NOTHING, askEar: true });
      }
    },
    [choices, source, subject, send],
  );

  const mark = useCallback(
    (run: Run, ear: "clean" | "shaky") => send(run, { source: "by_ear", onsets: [], ear }),
    [send],
  );
  const clear = useCallback(() => setState(NOTHING), []);
  return { ...state, finish, mark, clear };
}
