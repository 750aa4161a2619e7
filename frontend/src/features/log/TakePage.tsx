import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { api } from "../../api/client";
import { forgetWork, takeQuery } from "../../api/queries";
import { AskFirst } from "../../ui/AskFirst";
import { Loading } from "../../ui/Loading";
import { MARK_WORDS } from "../../ui/marks";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";
import { TakeNote } from "../../ui/TakeNote";
import { canBeHeard, PlayedBack, useHeardFrom } from "../stand/PlayedBack";
import { TakeTable } from "../stand/TakeTable";
import { ThroughThePass } from "../stand/ThroughThePass";
import { WhereInThePass } from "../stand/WhereInThePass";
import { WhereItFell } from "../stand/WhereItFell";
import { JudgedAgain } from "./JudgedAgain";

/** There is no rail here to point at. */
const NOWHERE = () => {};

/** One take of the log, as it stood on the stand after it was played. */
export function TakePage() {
  const id = String(useParams().takeId);
  const navigate = useNavigate();
  const found = useQuery(takeQuery(id));
  const remove = useMutation({
    mutationFn: () => api.deleteTake(id),
    onSuccess: () => {
      void navigate(-1);
      forgetWork();
    },
  });
  const { from, hear } = useHeardFrom(found.data?.figures ?? null, NOWHERE);
  if (found.isPending) return <Loading what="the take" />;
  if (found.isError) return <Problem error={found.error} onRetry={() => void found.refetch()} />;
  const take = found.data;
  return (
    <div>
      <div className="flex flex-wrap items-baseline gap-3 mb-3">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">
          {MARK_WORDS[take.mark]} at {take.bpm_label} bpm{take.part_name && `, ${take.part_name}`}
        </h1>
        {take.climb_id !== null && (
          <Link className="button" to={`/stand/climb/${take.climb_id}`}>
            Put on the stand
          </Link>
        )}
        <Link className="button" to={`/log/${take.student_id}`}>
          The log
        </Link>
      </div>
      <p className="text-soft mb-2">
        {moment(take.played_at)}, {take.seconds} seconds
        {take.ear_by === "student" && ", marked by the student"}
      </p>
      <div className="grid gap-3 lg:grid-cols-[1fr_24rem]">
        {take.figures?.matched ? (
          <div className="card-plain min-w-0">
            <WhereItFell figures={take.figures} onNote={hear} />
            <ThroughThePass figures={take.figures} onNote={hear} />
            <WhereInThePass figures={take.figures} onNote={null} />
            {canBeHeard(take.source) && <PlayedBack takeId={take.id} start={take.start} from={from} />}
            <TakeTable figures={take.figures} onNote={hear} />
          </div>
        ) : (
          <p className="card-plain">Nothing of it was measured.</p>
        )}
        <div className="grid gap-3 content-start min-w-0">
          <section className="card-plain">
            <h2>What was said</h2>
            {take.reasons.map((line) => (
              <p key={line}>{line}</p>
            ))}
            <p className="text-soft text-sm mt-1">Held to {take.held_to}.</p>
            {take.is_measured && <JudgedAgain takeId={take.id} />}
          </section>
          <TakeNote key={take.id} takeId={take.id} note={take.note} />
          <AskFirst
            offer="Delete …"
            question="Delete this take, because it was kept by mistake? It cannot be taken back."
            confirm="Delete the take"
            busy={remove.isPending}
            onConfirm={() => remove.mutate()}
          />
          {remove.isError && <Problem error={remove.error} />}
        </div>
      </div>
    </div>
  );
}
