import type { Reading } from "../../api/client";

const WIDE = 240;
const TALL = 16;
/** More beats than that would be a grey line. */
const MOST_BEATS = 48;

/** When the groups of each stage are home, in a row each; and where every group starts, on a small rail. */
export function GroupTable({ groups }: Pick<Reading, "groups">) {
  return (
    <>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">on</th>
            <th scope="col">on a beat after</th>
            <th scope="col">on the bar line after</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((group) => (
            <tr key={group.on}>
              <th scope="row">{group.on}</th>
              <td>{group.on_beat}</td>
              <td>
                {group.on_bar}
                <span className="block text-soft text-sm">{group.stage}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <details className="mt-1">
        <summary className="cursor-pointer text-primary font-semibold">Where every group starts</summary>
        {groups.map((group) => (
          <div key={group.on} className="mt-1">
            <p className="text-soft text-sm">{group.on}</p>
            <Starts group={group} />
            {group.also.map((one) => (
              <p key={one} className="text-sm">
                {one}
              </p>
            ))}
          </div>
        ))}
      </details>
    </>
  );
}

/** Beats as marks, and over them where groups start. */
function Starts({ group }: { group: Reading["groups"][number] }) {
  const beats = Math.min(MOST_BEATS, Math.max(1, Math.ceil(group.beats)));
  const x = (beat: number) => 4 + (beat / beats) * (WIDE - 8);
  const starts = group.starts.filter((at) => at <= beats);
  return (
    <svg
      width={WIDE}
      height={TALL + 8}
      viewBox={`0 0 ${WIDE} ${TALL + 8}`}
      className="max-w-full"
      role="img"
      aria-label={`${starts.length} groups in ${beats} beats; they start ${starts
        .slice(0, 12)
        .map((at) => `${(at + 1).toFixed(2)}`)
        .join(", ")}`}
    >
      <line className="stroke-soft" x1={4} x2={WIDE - 4} y1={TALL + 3} y2={TALL + 3} />
      {Array.from({ length: beats + 1 }, (_, beat) => (
        <line key={beat} className="stroke-soft" x1={x(beat)} x2={x(beat)} y1={TALL} y2={TALL + 6} />
      ))}
      {starts.map((at) => (
        <line
          key={at}
          className="stroke-accent"
          x1={x(at)}
          x2={x(at)}
          y1={2}
          y2={TALL - 1}
          strokeWidth={3}
          strokeLinecap="round"
        />
      ))}
    </svg>
  );
}
