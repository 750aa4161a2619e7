import { useQuery } from "@tanstack/react-query";
import type { Climb, Refusal } from "../../api/client";
import { takesQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";
import { ByEar } from "./ByEar";
import type { Run } from "./runs";
import { TheWord } from "./TheWord";
import { ThroughThePass } from "./ThroughThePass";
import type { Subject, useTakes } from "./useTakes";
import { WhereItFell } from "./WhereItFell";

type Props = {
  subject: Subject;
  climb: Climb | null;
  takes: ReturnType<typeof useTakes>;
  run: Run | null;
  playing: boolean;
  onMoved: (climb: Climb) => void;
};

/** Under the rail: before a take the rule, after it what it measured and the word. */
export function AfterTheTake({ subject, climb, takes, run, playing, onMoved }: Props) {
  const { judged, error, busy } = takes;
  if (busy) return <Loading what="what the take measured" />;
  if (judged) {
    const figures = judged.take.figures;
    return (
      <div className="grid gap-3 lg:grid-cols-[5fr_4fr_3fr]">
        {figures?.matched ? (
          <>
            <WhereItFell figures={figures} heading="Where each note of the beat fell" />
            <ThroughThePass figures={figures} />
          </>
        ) : (
          <p className="card-plain lg:col-span-2">Marked by ear: no figures, and none are needed.</p>
        )}
        <div className="grid gap-3 content-start">
          <TheWord judged={judged} rung={subject.rung} onMoved={onMoved} />
        </div>
      </div>
    );
  }
  return (
    <div className="grid gap-3 lg:grid-cols-3">
      {error && (
        <div className="lg:col-span-3">
          <Problem error={error} />
          {(error as Refusal).isLost && <p className="mt-1">The take lies here and goes out by itself.</p>}
        </div>
      )}
      <Rule climb={climb} studentId={subject.studentId} />
      {run && !playing && subject.studentId !== null && takes.askEar && (
        <div>
          {run.slipped && (
            <p className="text-care-text mb-1">
              The sound clock jumped during this take, so taps would be judged wrongly. Mark it by ear.
            </p>
          )}
          <ByEar busy={busy} onMark={(ear) => void takes.mark(run, ear)} />
        </div>
      )}
      {climb && <LastTakes climbId={climb.id} />}
      <section className="card-plain">
        <h2>Care</h2>
        <p className="text-sm">
          Stop at pain, tingling, numbness or weakness. Rest 5 minutes after 25; wind players rest as long as
          they play. Start soft, with headphones if the instrument is loud.
        </p>
      </section>
    </div>
  );
}

function Rule({ climb, studentId }: { climb: Climb | null; studentId: number | null }) {
  return (
    <section className="card-plain">
      <h2>Before you play</h2>
      {climb ? (
        <p>
          {climb.word.sentence} {climb.plan.clean_to_rise} clean in a row lead up, {climb.plan.shaky_to_fall}{" "}
          shaky in a row lead back one rung.
        </p>
      ) : studentId === null ? (
        <p>Choose a student above to keep takes. Without one it plays, and nothing is measured.</p>
      ) : (
        <p>Takes are kept in the log. To have rungs and a word after each take, start a climb.</p>
      )}
    </section>
  );
}

function LastTakes({ climbId }: { climbId: number }) {
  const takes = useQuery(takesQuery(climbId));
  const last = takes.data?.takes.slice(-4).reverse() ?? [];
  if (!last.length) return null;
  return (
    <section className="card-plain">
      <h2>Last takes</h2>
      <ul className="text-sm">
        {last.map((take) => (
          <li key={take.id}>
            {moment(take.played_at)}: {take.bpm_label} bpm,{" "}
            <strong>{take.mark === "unclear" ? "no verdict" : take.mark}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}
