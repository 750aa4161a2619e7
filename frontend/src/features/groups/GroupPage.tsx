import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Choices, type Group, type GroupDetails, type Student } from "../../api/client";
import { choicesQuery, forgetWork, groupQuery, studentsQuery } from "../../api/queries";
import { AskFirst } from "../../ui/AskFirst";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { ALL_OF_IT, partOf } from "../stand/practice";
import { FormField, FormSelect } from "../students/fields";
import { HandOut } from "./HandOut";

type Part = Group["members"][number]["part"];

/** A class: who is in it, whose part is which, one drill for all, and the stand in turn. */
export function GroupPage() {
  const id = Number(useParams().groupId);
  const group = useQuery(groupQuery(id));
  const students = useQuery(studentsQuery);
  const choices = useQuery(choicesQuery);
  if (group.isError) return <Problem error={group.error} onRetry={() => void group.refetch()} />;
  if (!group.data || !students.data || !choices.data) return <Loading what="the group" />;
  return <OneGroup group={group.data} students={students.data.students} choices={choices.data} />;
}

type Props = { group: Group; students: Student[]; choices: Choices };

const detailsOf = (group: Group): GroupDetails => ({
  name: group.name,
  members: group.members.map(({ student, part }) => ({ student_id: student.id, part })),
  lesson_weekday: group.lesson_weekday,
  lesson_time: group.lesson_time,
});

function OneGroup({ group, students, choices }: Props) {
  const navigate = useNavigate();
  const [handing, setHanding] = useState(false);
  const details = detailsOf(group);
  const save = useMutation({
    mutationFn: (changed: Partial<GroupDetails>) =>
      api.changeGroup(group.id, { ...details, ...changed }, group.revision),
    onSuccess: forgetWork,
  });
  const remove = useMutation({
    mutationFn: () => api.deleteGroup(group.id),
    onSuccess: () => {
      void navigate("/students", { replace: true });
      forgetWork();
    },
  });
  const free = students.filter((one) => !group.members.some((member) => member.student.id === one.id));
  const withPart = (studentId: number, part: Part) =>
    details.members.map((one) => (one.student_id === studentId ? { ...one, part } : one));
  const drills = [
    ...new Map(group.members.flatMap(({ climb }) => (climb ? [[climb.drill_id, climb]] : []))).values(),
  ];
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-3">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1 break-words min-w-0">{group.name}</h1>
        {drills[0] && (
          <Link className="button" to={`/stand/drill/${drills[0].drill_id}?turns=1`}>
            Call and answer
          </Link>
        )}
        <button
          type="button"
          className="button button-first"
          disabled={group.members.length === 0}
          onClick={() => setHanding(true)}
        >
          One drill for all
        </button>
      </div>
      {save.isError && <Problem error={save.error} />}
      <ul className="space-y-2 mb-4" aria-label="Members">
        {group.members.length === 0 && (
          <li className="card-plain">Nobody is in it yet. Add the first below.</li>
        )}
        {group.members.map(({ student, part, climb }) => (
          <li
            key={student.id}
            className="card-plain grid gap-x-4 gap-y-1 sm:grid-cols-[1fr_14rem_auto_auto] items-center"
          >
            <div className="min-w-0">
              <Link to={`/students/${student.id}`} className="font-semibold text-lg break-words">
                {student.name}
              </Link>
              <p className="text-soft text-sm">
                {climb ? `${climb.title}, ${climb.sign} = ${climb.bpm_label}` : "no climb yet"}
              </p>
            </div>
            <label className="text-sm">
              plays
              <select
                className="field"
                value={wordFor(part)}
                onChange={(event) =>
                  save.mutate({ members: withPart(student.id, chosenPart(event.target.value)) })
                }
              >
                {partsFor(choices).map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.label}
                  </option>
                ))}
              </select>
            </label>
            {climb && (
              <Link className="button button-small" to={`/stand/climb/${climb.id}${asked(part)}`}>
                On the stand<span className="sr-only">: {student.name}</span>
              </Link>
            )}
            <button
              type="button"
              className="button button-small button-quiet"
              onClick={() =>
                save.mutate({ members: details.members.filter((one) => one.student_id !== student.id) })
              }
            >
              Take out<span className="sr-only">: {student.name}</span>
            </button>
          </li>
        ))}
      </ul>
      <div className="card-plain grid gap-3 sm:grid-cols-2 lg:grid-cols-4 mb-4">
        <FormSelect
          label="Add a member"
          field="members"
          wrong=""
          value=""
          choices={[
            { value: "", label: free.length ? "choose" : "everyone is in it" },
            ...free.map((one) => ({ value: String(one.id), label: one.name })),
          ]}
          onChange={(id) =>
            id && save.mutate({ members: [...details.members, { student_id: Number(id), part: ALL }] })
          }
        />
        <Renamed
          key={`${group.name} ${group.lesson_time} ${group.lesson_weekday}`}
          choices={choices}
          details={details}
          onSave={(to) => save.mutate(to)}
        />
      </div>
      <AskFirst
        offer="Delete …"
        question="Delete this group? Its students and their climbs stay."
        confirm="Delete the group"
        busy={remove.isPending}
        onConfirm={() => remove.mutate()}
      />
      {remove.isError && <Problem error={remove.error} />}
      {handing && <HandOut group={group} choices={choices} onClose={() => setHanding(false)} />}
    </div>
  );
}

type RenamedProps = {
  details: GroupDetails;
  choices: Choices;
  onSave: (changed: Partial<GroupDetails>) => void;
};

function Renamed({ details, choices, onSave }: RenamedProps) {
  const [name, setName] = useState(details.name);
  const [time, setTime] = useState(details.lesson_time);
  const [day, setDay] = useState(details.lesson_weekday);
  const isChanged = name !== details.name || time !== details.lesson_time || day !== details.lesson_weekday;
  return (
    <>
      <FormField label="Name" field="name" wrong="" value={name} onChange={setName} />
      <FormSelect
        label="Lesson on"
        field="lesson_weekday"
        wrong=""
        value={String(day ?? "")}
        choices={[{ value: "", label: "no fixed day" }, ...choices.weekdays]}
        onChange={(chosen) => setDay(chosen === "" ? null : Number(chosen))}
      />
      <FormField
        label="At"
        field="lesson_time"
        wrong=""
        placeholder="17:00"
        value={time}
        onChange={setTime}
      />
      {isChanged && (
        <button
          type="button"
          className="button"
          onClick={() => onSave({ name, lesson_time: time, lesson_weekday: day })}
        >
          Keep name, day and time
        </button>
      )}
    </>
  );
}

/** All of a drill. */
const ALL: Part = partOf(ALL_OF_IT);

const partsFor = (choices: Choices) => [
  { value: "all", label: "all of it" },
  ...choices.steps
    .filter((one) => one.value === "body")
    .map((one) => ({ value: "step body", label: one.label })),
  ...choices.parts.filter(
    (one) => one.value !== "everything" && one.value !== "hand" && one.value !== "burst",
  ),
  { value: "hand R", label: "R alone" },
  { value: "hand L", label: "L alone" },
];

function chosenPart(value: string): Part {
  const [kind, step] = value.split(" ");
  if (kind === "step") return { ...ALL, step: step as Part["step"] };
  return partOf({ ...ALL_OF_IT, part: value === "all" ? ALL_OF_IT.part : value });
}

/** A part as the address of the stand has it; nothing for all of it. */
function asked(part: Part): string {
  if (part.step) return `?step=${part.step}`;
  const word = wordFor(part);
  return word === "all" ? "" : `?part=${encodeURIComponent(word)}`;
}

function wordFor(part: Part): string {
  if (part.step) return `step ${part.step}`;
  if (!part.reduce || part.reduce.part === "everything") return "all";
  return part.reduce.part === "hand" ? `hand ${part.reduce.hand}` : part.reduce.part;
}
