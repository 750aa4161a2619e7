import { useQuery } from "@tanstack/react-query";
import { api, files, type Schemas } from "../api/client";
import { Problem } from "./Problem";

const ASK_AGAIN_MS = 400;

/** How far a file is; when it is ready, the way to it. */
export function FileProgress({ begun }: { begun: Schemas["JobShape"] }) {
  const job = useQuery({
    queryKey: ["play-along", begun.key],
    queryFn: () => api.playAlongOf(begun.key),
    initialData: begun,
    retry: false,
    refetchInterval: ({ state }) =>
      state.error || state.data?.ready || state.data?.failed ? false : ASK_AGAIN_MS,
  });
  if (job.isError) return <Problem error={job.error} />;
  const { key, done, steps, sentence, ready, failed } = job.data;
  return (
    <div className="mt-3">
      <progress className="progress progress-primary w-full" max={steps} value={done} aria-label="the file" />
      <p role="status" className={failed ? "text-error font-semibold" : ""}>
        {sentence}
      </p>
      {ready && (
        <a className="button button-first mt-2" href={files.playAlong(key)}>
          Save the file
        </a>
      )}
    </div>
  );
}
