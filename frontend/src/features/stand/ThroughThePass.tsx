import type { Schemas } from "../../api/client";

const WIDE = 340;
const TALL = 130;

/** The line through the take, inside the band of what counts as even. */
export function ThroughThePass({ figures }: { figures: Schemas["FiguresShape"] }) {
  const { line, limit_ms: limit } = figures;
  const first = line[0]?.at ?? 0;
  const span = Math.max(0.001, (line.at(-1)?.at ?? 1) - first);
  const reach = Math.max(limit * 1.6, ...line.map((point) => Math.abs(point.offset_ms)));
  const y = (ms: number) => TALL / 2 + (ms / reach) * (TALL / 2 - 6);
  const points = line.map(({ at, offset_ms }) => `${((at - first) / span) * WIDE},${y(offset_ms)}`).join(" ");
  return (
    <section className="card-plain min-w-0">
      <h2>Through the take</h2>
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        className="w-full"
        role="img"
        aria-label={`Offsets through the take; even is within ${limit.toFixed(0)} ms. ${figures.drift?.label ?? ""}`}
      >
        <rect className="fill-done" x={0} y={y(-limit)} width={WIDE} height={y(limit) - y(-limit)} rx={6} />
        <line className="stroke-soft" x1={0} x2={WIDE} y1={TALL / 2} y2={TALL / 2} strokeDasharray="4 4" />
        <polyline className="stroke-peg" points={points} fill="none" strokeWidth={2} strokeLinejoin="round" />
      </svg>
      <p className="text-soft text-sm">Up is early, down is late; the band is what counts as even.</p>
      <p className="text-sm">
        {figures.drift ? (
          <>
            Drift <strong>{figures.drift.label}</strong> {figures.drift.plus_minus}; {figures.drift_note}.
          </>
        ) : (
          `Drift: ${figures.drift_note}.`
        )}
      </p>
      {figures.seams.map((seam) => (
        <p key={seam.name} className="text-sm">
          Change {seam.name}: {seam.sentence}
        </p>
      ))}
    </section>
  );
}
