import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { drillsQuery, studentsQuery } from "../../api/queries";

const LONGEST = 200;
const mark = (title: string) => `’s own: ${title}`;

/** What a student's own bar of a drill is called. */
export const ownTitle = (name: string, title: string) => `${name}${mark(title)}`.slice(0, LONGEST);

type Props = { title: string; isPending: boolean; onKeep: (name: string) => void };

/** A bar that a student made of this drill, kept beside it under the student's name; and those that there are. */
export function OwnBars({ title, isPending, onKeep }: Props) {
  const [name, setName] = useState("");
  const students = useQuery(studentsQuery);
  const drills = useQuery(drillsQuery);
  const own = drills.data?.drills.filter((one) => one.title.endsWith(mark(title))) ?? [];
  const people = students.data?.students ?? [];
  if (people.length === 0) return null;
  return (
    <form
      className="flex flex-wrap items-center gap-2 mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        onKeep(name || (people[0]?.name ?? ""));
      }}
    >
      <button type="submit" className="button button-small" disabled={isPending}>
        Keep this beside it as
      </button>
      <select
        className="field w-auto"
        aria-label="whose own it is"
        value={name || people[0]?.name}
        onChange={(event) => setName(event.target.value)}
      >
        {people.map((one) => (
          <option key={one.id} value={one.name}>
            {one.name}’s own
          </option>
        ))}
      </select>
      {own.map((one) => (
        <Link key={one.id} className="text-link" to={`/bench/${one.id}`}>
          {one.title}
        </Link>
      ))}
    </form>
  );
}
