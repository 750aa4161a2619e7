import { useQuery } from "@tanstack/react-query";
import type { Climb, Judged, Refusal } from "../../api/client";
import { takesQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";
import { TakeNote } from "../../ui/TakeNote";
import { ByEar } from "./ByEar";
import { TheWord } from "./TheWord";
import { ThroughThePass } from "./ThroughThePass";
import type { Subject, useTakes } from "./useTakes";
import { WhereItFell } from "./WhereItFell";

type Props = {
  subject: Subject;
  climb: Climb | null;
  takes: ReturnType<typeof useTakes>;
  playing: boolean;
  large: boolean;
  onMoved: (climb: Climb) => void;
};

/** Under the rail: before a take the rule, after it what it measured and the word. Large, the word alone. */
export function AfterTheTake(props: Props) {
  const { climb, takes, subject, large } = props;
  if (takes.busy) return <Loading what="what the take measured" />;
  if (takes.judged && !takes.byEar.length)
    return large ? <Word {...props} judged={takes.judged} /> : <Figures {...props} judged={takes.judged} />;
  const ear = <Ear {...props} />;
  if (large) return ear;
  return (
    <div className="grid gap-3 lg:grid-cols-3">
      {takes.error && (
        <div className="lg:col-span-3">
          <Problem error={takes.error} />
          {(takes.error as Refusal).isLost && (
            <p className="mt-1">The take lies here and goes out by itself.</p>
          )}
        </div>
      )}
      <Rule climb={climb} studentId={subject.studentId} />
      {ear}
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

type JudgedProps = Props & { judged: Judged };

function Figures(props: JudgedProps) {
  const { figures } = props.judged.take;
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
      <Word {...props} />
    </div>
  );
}

function Word({ judged, subject, onMoved }: JudgedProps) {
  const { id, note } = judged.take;
  return (
    <div className="grid gap-3 content-start">
      <TheWord judged={judged} rung={subject.rung} onMoved={onMoved} />
      <TakeNote key={id} takeId={id} note={note} />
    </div>
  );
}

/** Where nothing was measured, the ear marks the take; of several, one after the other. */
function Ear({ subject, takes, playing }: Props) {
  const [run] = takes.byEar;
  if (!run || playing || subject.studentId === null) return null;
  return (
    <div>
      {run.slipped && (
        <p className="text-care-text mb-1">
          The sound clock jumped during this take, so taps would be judged wrongly. Mark it by ear.
        </p>
      )}
      <ByEar
        busy={takes.busy}
        at={takes.byEar.length > 1 ? run.bpm : null}
        onMark={(ear) => void takes.mark(run, ear)}
      />
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
