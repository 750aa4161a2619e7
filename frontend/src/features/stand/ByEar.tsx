type Props = {
  busy: boolean /** The tempo, where more than one take waits. */;
  at: string | null;
  onMark: (ear: "clean" | "shaky") => void;
};

/** A take marked by ear: no device needed. */
export function ByEar({ busy, at, onMark }: Props) {
  return (
    <section className="card-plain min-w-0">
      <h2>How was it{at === null ? "" : ` at ${at}`}, by ear?</h2>
      <p className="mb-2">Clean: even, nothing missed, at ease.</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" disabled={busy} onClick={() => onMark("clean")}>
          Clean
        </button>
        <button type="button" className="button" disabled={busy} onClick={() => onMark("shaky")}>
          Shaky
        </button>
      </div>
    </section>
  );
}
