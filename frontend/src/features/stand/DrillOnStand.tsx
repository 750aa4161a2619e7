import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Choices, Drill, Schemas, Student } from "../../api/client";
import { choicesQuery, drillQuery, studentsQuery } from "../../api/queries";
import { AmountField } from "../../ui/brief/AmountField";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { StandScreen } from "./StandScreen";
import { useHeld } from "./useHeld";

/** A drill on the stand without a climb: any tempo, for any student or for none. */
export function DrillOnStand() {
  const id = Number(useParams().drillId);
  const [asked] = useSearchParams();
  const kept = useQuery(drillQuery(id, Number(asked.get("version")) || undefined));
  const choices = useQuery(choicesQuery);
  const students = useQuery(studentsQuery);
  const failed =
    (!kept.data && kept.error) || (!choices.data && choices.error) || (!students.data && students.error);
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!kept.data || !choices.data || !students.data) return <Loading what="the drill" />;
  return (
    <Standing
      key={`${id} ${asked.get("version")}`}
      found={kept.data}
      choices={choices.data}
      students={students.data.students}
    />
  );
}

type Props = { found: Schemas["DrillShape"]; choices: Choices; students: Student[] };

function Standing({ found, choices, students }: Props) {
  const [asked] = useSearchParams();
  const { held: kept = found, newer, setBusy } = useHeld(found);
  // What someone chose here stays, whichever version it is of.
  const [chosenBpm, setBpm] = useState<string | null>(null);
  const [chosenClick, setClick] = useState<Drill["click"] | null>(null);
  const bpm = chosenBpm ?? kept.drill.bpm;
  const click = chosenClick ?? kept.drill.click;
  const [studentId, setStudentId] = useState<number | null>(null);
  const subject = useMemo(
    () => ({
      drill: kept.drill,
      drillId: kept.id,
      version: kept.version,
      studentId,
      climbId: null,
      rung: null,
      part: null,
      click,
    }),
    [kept, studentId, click],
  );
  return (
    <StandScreen
      subject={subject}
      climb={null}
      title={
        <>
          <h1>
            <Link className="text-link" to={`/bench/${kept.id}`}>
              {kept.drill.title}
            </Link>
          </h1>
          <p>
            For{" "}
            <select
              className="brief-word"
              aria-label="student"
              value={studentId ?? ""}
              onChange={(event) => setStudentId(event.target.value ? Number(event.target.value) : null)}
            >
              <option value="">nobody in particular</option>
              {students.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>{" "}
            at <AmountField label="tempo in bpm" field="bpm" what="bpm" exact={bpm} onChange={setBpm} /> bpm
          </p>
        </>
      }
      above="tempo"
      choices={choices}
      stand={students.find((one) => one.id === studentId)?.details.stand ?? null}
      bpm={bpm}
      steps={null}
      onTempo={setBpm}
      onClick={setClick}
      turns={Number(asked.get("turns")) || null}
      onMoved={() => {}}
      newer={newer}
      onBusy={setBusy}
      onRung={(to) => {
        setBpm(to);
        return true;
      }}
    />
  );
}
