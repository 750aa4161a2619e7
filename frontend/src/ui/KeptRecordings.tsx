import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api } from "../api/client";
import { queryClient, recordingsQuery } from "../api/queries";
import { AskFirst } from "./AskFirst";
import { moment } from "./moment";
import { Problem } from "./Problem";

/** The recordings that are kept, of one student or of all: which, until when, and gone in one press. */
export function KeptRecordings({ studentId }: { studentId?: number }) {
  const recordings = useQuery(recordingsQuery(studentId));
  const done = () => queryClient.invalidateQueries({ queryKey: ["recordings"] });
  const one = useMutation({ mutationFn: api.deleteRecording, onSuccess: done });
  const all = useMutation({ mutationFn: () => api.deleteRecordings(studentId), onSuccess: done });
  const failed = recordings.error ?? one.error ?? all.error;
  const found = recordings.data;
  return (
    <section className="card-plain mb-4">
      <h2>Recordings</h2>
      {failed && <Problem error={failed} />}
      <p>
        {found?.sentence} They are kept only of students for whom that is asked, for so many days, and on this
        computer alone.
      </p>
      {found && found.recordings.length > 0 && (
        <>
          <ul className="my-2">
            {found.recordings.map((recording) => (
              <li key={recording.take_id} className="flex flex-wrap items-baseline gap-x-3">
                <Link to={`/log/take/${recording.take_id}`}>{moment(recording.made_at)}</Link>
                {studentId === undefined && <span>{recording.student}</span>}
                <span className="text-soft">
                  {recording.seconds} s, {recording.size}, until {moment(recording.until)}
                </span>
                <button
                  type="button"
                  className="button button-small button-quiet"
                  aria-label={`Delete the recording of ${moment(recording.made_at)}`}
                  onClick={() => one.mutate(recording.take_id)}
                >
                  Delete
                </button>
              </li>
            ))}
          </ul>
          <AskFirst
            offer="Delete all recordings"
            question="Delete all of these recordings? The takes stay, with their figures; the sound is gone for good."
            confirm="Delete them"
            busy={all.isPending}
            onConfirm={() => all.mutate()}
          />
        </>
      )}
    </section>
  );
}
