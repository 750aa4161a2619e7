import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { api, type Choices, type Overrides, type Schemas, type Student } from "../../api/client";
import { choicesQuery, drillsQuery, forgetWork, ladderQuery, studentsQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";
import { useOnce } from "../../ui/useOnce";
import { ClickLadder } from "./ClickLadder";
import { KeepLadder } from "./KeepLadder";
import { AS_WRITTEN, OverrideWords, type Turned } from "./OverrideWords";
import { PlanBrief } from "./PlanBrief";
import { RungTable } from "./RungTable";
import { startOf } from "./startOf";
import { Treads } from "./Treads";

/** A climb to start: who, which drill, from where, to where, by which rule. */
export function NewClimbPage() {
  const choices = useQuery(choicesQuery);
  const students = useQuery(studentsQuery);
  const drills = useQuery(drillsQuery);
  const failed = choices.error ?? students.error ?? drills.error;
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!choices.data || !students.data || !drills.data) return <Loading what="students and drills" />;
  if (students.data.students.length === 0 || drills.data.drills.length === 0)
    return (
      <div className="card-plain max-w-xl">
        <h2>A climb needs a student and a drill</h2>
        <p className="mb-3">
          {students.data.students.length === 0
            ? "Add a student first."
            : "Make a drill, or take a ready one, first."}
        </p>
        <Link className="button" to={students.data.students.length === 0 ? "/students" : "/bench"}>
          {students.data.students.length === 0 ? "To the students" : "To the drills"}
        </Link>
      </div>
    );
  return <NewClimb choices={choices.data} students={students.data.students} drills={drills.data.drills} />;
}

/** What a plan begins with for a student: the own ladder, the own evenness. */
function ownOf(student: Student | undefined) {
  const evenness = student?.details.evenness;
  return { clicks: student?.clicks ?? [], ...(evenness ? { evenness } : {}) };
}

/** What a student plays otherwise from the start: counted in the own words. */
const overridesOf = (student: Student | undefined): Overrides => ({
  ...AS_WRITTEN,
  counting: student?.details.counting ?? null,
});

type Props = { choices: Choices; students: Student[]; drills: Schemas["DrillLine"][] };

function NewClimb({ choices, students, drills }: Props) {
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const [studentId, setStudentId] = useState(Number(asked.get("student")) || (students[0]?.id ?? 0));
  const [drillId, setDrillId] = useState(Number(asked.get("drill")) || (drills[0]?.id ?? 0));
  const student = students.find((one) => one.id === studentId);
  const lineOf = (id: number) => drills.find((one) => one.id === id);
  const [plan, setPlan] = useState(() => startOf({ ...choices.plan, ...ownOf(student) }, lineOf(drillId)));
  const chooseDrill = (id: number) => {
    setDrillId(id);
    setPlan(startOf(plan, lineOf(id), lineOf(drillId)));
  };
  const chooseStudent = (id: number) => {
    setStudentId(id);
    const before = JSON.stringify(student?.clicks ?? []);
    const own = students.find((one) => one.id === id)?.clicks ?? [];
    setOverrides((old) => ({
      ...old,
      counting: overridesOf(students.find((one) => one.id === id)).counting,
    }));
    // Another student's own ladder takes the place of the first one's, not of what was chosen by hand.
    const evenness = students.find((one) => one.id === id)?.details.evenness ?? plan.evenness;
    const clicks = JSON.stringify(plan.clicks) === before ? own : plan.clicks;
    setPlan({ ...plan, clicks, evenness });
  };
  const [overrides, setOverrides] = useState<Overrides>(() => overridesOf(student));
  const [turned, setTurned] = useState("");
  const ladder = useQuery({
    ...ladderQuery(drillId, plan, overrides),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const shown = useLastGood(ladder.data);
  const refusal = refusalOf(ladder.error);
  const isOfOverrides = refusal?.field?.startsWith("overrides") ?? false;
  const once = useOnce();
  const start = useMutation({
    mutationFn: async () => {
      const body = { student_id: studentId, drill_id: drillId, version: null, plan };
      const key = once.key([body, overrides, turned]);
      if (!turned) return [await api.startClimb({ ...body, overrides, key })];
      return (await api.startSet({ ...body, over: overrides, turned: turned as Turned, key })).climbs;
    },
    onSuccess: (climbs) => {
      once.done();
      forgetWork();
      void navigate(`/climbs/${climbs[0]?.id}`);
    },
  });
  const sign = drills.find((one) => one.id === drillId)?.tempo.split(" ")[0] ?? "♩";
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-2">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">A new climb</h1>
        <button
          type="button"
          className="button button-first"
          disabled={start.isPending || ladder.isError}
          onClick={() => start.mutate()}
        >
          {turned ? "Start the set" : "Start this climb"}
        </button>
      </div>
      <PlanBrief
        plan={plan}
        choices={choices}
        sign={sign}
        students={students.map((one) => ({
          value: String(one.id),
          label: one.name,
          why: one.instrument_name,
        }))}
        studentId={studentId}
        onStudent={chooseStudent}
        own={student?.clicks ?? []}
        drills={drills.map((one) => ({
          value: String(one.id),
          label: one.title,
          why: `${one.material}, ${one.divisions}`,
        }))}
        drillId={drillId}
        onDrill={chooseDrill}
        refusal={isOfOverrides ? null : refusal}
        rest={shown ? [shown.rule_words, shown.moving_words].filter(Boolean).join(" ") : ""}
        onChange={setPlan}
      />
      <OverrideWords
        overrides={overrides}
        turned={turned}
        choices={choices}
        studentId={studentId}
        drillId={drillId}
        plan={plan}
        refusal={isOfOverrides ? refusal : null}
        onChange={setOverrides}
        onTurned={setTurned}
      />
      {plan.clicks.length > 0 && (
        <details className="card-plain mb-3">
          <summary className="cursor-pointer text-primary font-bold">
            Change the click ladder, plan by plan
          </summary>
          <ClickLadder
            ladder={plan}
            choices={choices}
            refusal={refusalOf(ladder.error)}
            onChange={(changed) => setPlan({ ...plan, ...changed })}
          />
          {student && <KeepLadder student={student} clicks={plan.clicks} />}
        </details>
      )}
      {start.isError && <Problem error={start.error} />}
      {shown && (
        <>
          <p className="mb-2 font-semibold">{shown.sentence}</p>
          <div className="card-plain">
            <Treads treads={shown.treads} sign={sign} targetLabel={shown.treads.at(-1)?.bpm_label ?? ""} />
          </div>
          <RungTable treads={shown.treads} sign={sign} />
        </>
      )}
    </div>
  );
}
