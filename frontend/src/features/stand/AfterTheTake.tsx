import type { ReactNode } from "react";
import type { Choices, Climb, Judged, KeptRemedy, Refusal } from "../../api/client";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { TakeNote } from "../../ui/TakeNote";
import { BeforeTheTry } from "./BeforeTheTry";
import { ByEar } from "./ByEar";
import { canBeHeard, PlayedBack, useHeardFrom } from "./PlayedBack";
import { TakeTable } from "./TakeTable";
import { TheWord } from "./TheWord";
import { ThroughThePass } from "./ThroughThePass";
import type { Subject, useTakes } from "./useTakes";
import { WhereInThePass } from "./WhereInThePass";
import { WhereItFell } from "./WhereItFell";

type Props = {
  subject: Subject;
  climb: Climb | null;
  choices: Choices;
  takes: ReturnType<typeof useTakes>;
  /** The bar in which something was off, beside what was measured; null before a take. */
  rail: ReactNode;
  large: boolean;
  /** Shows the figures, where the ear comes first; null where they stand there anyway. */
  onFigures: (() => void) | null;
  onMoved: (climb: Climb) => void;
  onRemedy: (remedy: KeptRemedy) => void;
  onBack: () => void;
  onAgain: (passes: number | null) => void;
  onRung: ((bpm: string) => boolean) | null;
  /** A dot was pressed: its note on the rail. */
  onNote: (event: number) => void;
};

/** Before a take the rule in one line under the rail; after it the word and what was measured, in the rail’s place. */
export function AfterTheTake(props: Props) {
  const { climb, takes, subject, large } = props;
  if (takes.busy) return <Loading what="what the take measured" />;
  if (takes.judged && !takes.byEar.length) return <Figures {...props} judged={takes.judged} />;
  return (
    <>
      {takes.error && (
        <div>
          <Problem error={takes.error} />
          {(takes.error as Refusal).isLost && (
            <p className="mt-1">The take lies here and goes out by itself.</p>
          )}
        </div>
      )}
      <Unheard {...props} />
      {!large && <BeforeTheTry climb={climb} studentId={subject.studentId} />}
    </>
  );
}

type JudgedProps = Props & { judged: Judged };

function Figures(props: JudgedProps) {
  const { judged, onNote, takes, onFigures, rail } = props;
  const { figures, source } = judged.take;
  const { from, hear } = useHeardFrom(figures, onNote);
  return (
    <div className="stand-word">
      <div className="min-w-0">
        {takes.error && <Problem error={takes.error} />}
        <Word {...props} />
      </div>
      <div className="stand-figures">
        {onFigures ? (
          <div className="card-plain">
            <p className="mb-2">First the ear: how was it? The figures wait.</p>
            <button type="button" className="button" onClick={onFigures}>
              Show the figures
            </button>
          </div>
        ) : figures?.matched ? (
          <div className="card-plain min-w-0 !py-3">
            <WhereItFell figures={figures} onNote={hear} />
            <ThroughThePass figures={figures} onNote={hear} />
            <WhereInThePass figures={figures} onNote={hear} />
            <Heard figures={figures} />
            {canBeHeard(source) && (
              <PlayedBack takeId={judged.take.id} start={judged.take.start} from={from} />
            )}
            <TakeTable figures={figures} onNote={hear} />
          </div>
        ) : (
          <p className="card-plain">
            {judged.take.source === "by_ear"
              ? "Marked by ear: no figures, and none are needed."
              : "Nothing of it could be measured."}
          </p>
        )}
        {rail}
      </div>
    </div>
  );
}

/** Hands and accents, where they were heard. */
function Heard({ figures }: { figures: NonNullable<Judged["take"]["figures"]> }) {
  if (!figures.hands.length && !figures.accents && !figures.together) return null;
  return (
    <ul className="text-sm mt-1 flex flex-wrap gap-x-5">
      {figures.hands.map((hand) => (
        <li key={hand.symbol}>
          <strong>{hand.symbol}</strong>: {hand.sentence}
        </li>
      ))}
      {figures.together && <li>Together: {figures.together}</li>}
      {figures.accents && <li>Accents: {figures.accents}</li>}
    </ul>
  );
}

function Word(props: JudgedProps) {
  const { judged, subject, takes } = props;
  const { id, note } = judged.take;
  return (
    <div className="grid gap-3 content-start">
      <TheWord
        judged={judged}
        rung={subject.rung}
        choices={props.choices}
        large={props.large}
        busy={takes.busy}
        onMoved={props.onMoved}
        onEar={(ear) => void takes.hear(id, ear)}
        onRemedy={props.onRemedy}
        onBack={props.onBack}
        onAgain={props.onAgain}
        onRung={props.onRung}
      />
      <TakeNote key={id} takeId={id} note={note} />
    </div>
  );
}

/** Where nothing was measured, the ear marks the take; of several, one after the other. */
function Unheard({ subject, takes, choices }: Props) {
  const [run] = takes.byEar;
  if (!run || subject.studentId === null) return null;
  return (
    <section className="card-plain min-w-0">
      {run.slipped && (
        <p className="text-care-text mb-1">
          The sound clock jumped during this take, so taps would be judged wrongly. Mark it by ear.
        </p>
      )}
      <ByEar
        busy={takes.busy}
        heading={takes.byEar.length > 1 ? `How was it at ${run.bpm}, by ear?` : "How was it, by ear?"}
        faults={choices.faults}
        onMark={(ear) => void takes.mark(run, ear)}
      />
      <p className="text-soft text-sm mt-1">Clean: even, nothing missed, at ease.</p>
    </section>
  );
}
