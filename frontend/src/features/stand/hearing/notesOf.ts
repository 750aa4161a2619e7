import { api, type Drill, type HeardNote, Refusal, type TakeBody } from "../../../api/client";
import type { Run } from "../runs";
import type { Heard } from "../useStand";

/** How early and late a note may belong to a run; the server cuts it finer. */
const ROOM = 2;

/**
 * What was heard of a run in a recording; refused with its sentence where that cannot be listened to.
 *
 * @param latency Of the microphone in ms; null where it was not measured.
 */
export async function notesOf(
  run: Run,
  recorded: Heard,
  drill: Drill,
  latency: number | null,
): Promise<Pick<TakeBody, "notes" | "hidden" | "recording">> {
  const { key, rate, begunAt, clicks, alone } = recorded;
  const early = clicks.filter((at) => at < begunAt).length;
  const heard = await api.listen(key, {
    rate,
    drill,
    bpm: run.bpm,
    part: run.part,
    sounds_as: null,
    clicks: clicks.slice(early).map((at) => at - begunAt),
    alone: Math.max(0, alone - early),
    latency_ms: latency,
  });
  if (!heard.quality.is_good) throw new Refusal(heard.quality.sentences.join(" "), null, 422);
  const zero = run.base - begunAt;
  const inside = (at: number) => at > run.start - ROOM && at < run.end + ROOM;
  const notes: HeardNote[] = heard.onsets
    .map(({ at, level }) => ({ at: at - zero, level, key: null, pitch: null, until: null }))
    .filter(({ at }) => inside(at));
  const hidden = heard.hidden.map((at) => at - zero).filter(inside);
  return { notes, hidden, recording: { key, rate, zero } };
}
