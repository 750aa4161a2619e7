import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import type { Choices } from "../../api/client";
import { choicesQuery, climbQuery, drillQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { MakeSheet, type Of } from "./MakeSheet";

/** The hand-out of a climb, made and issued. */
export function ClimbSheet() {
  const id = Number(useParams().climbId);
  const climb = useQuery(climbQuery(id));
  return (
    <Sheet
      of={{ climb_id: id }}
      title={climb.data && `${climb.data.student.name}: ${climb.data.title}`}
      instrument={null}
      back={`/climbs/${id}`}
      error={climb.error}
    />
  );
}

/** The hand-out of a drill, for anyone. */
export function DrillSheet() {
  const id = Number(useParams().drillId);
  const [query] = useSearchParams();
  const drill = useQuery(drillQuery(id));
  const version = query.get("version");
  return (
    <Sheet
      of={{ drill_id: id, ...(version ? { version: Number(version) } : {}) }}
      title={drill.data?.drill.title}
      instrument={drill.data?.drill.instrument ?? null}
      back={`/bench/${id}`}
      error={drill.error}
    />
  );
}

type Props = {
  of: Of;
  title: string | undefined;
  instrument: string | null;
  back: string;
  error: Error | null;
};

function Sheet({ of, title, instrument, back, error }: Props) {
  const choices = useQuery(choicesQuery);
  const failed = error ?? choices.error;
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!title || !choices.data) return <Loading what="the sheet" />;
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 mb-2">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1 break-words">{title}, on paper</h1>
        <Link className="button" to={back}>
          Back
        </Link>
      </div>
      <MakeSheet of={of} choices={choices.data} hasStrings={stringsOf(instrument, choices.data)} />
    </>
  );
}

/** Whether staves of strings make sense; a climb's instrument is not asked for again. */
const stringsOf = (instrument: string | null, choices: Choices) =>
  instrument === null || (choices.instruments.find((one) => one.value === instrument)?.strings ?? 0) > 0;
