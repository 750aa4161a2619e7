import type { Mark } from "../api/client";

type Props = { mark: Mark; cx: number; cy: number; r?: number; title?: string };

/** A take as a dot: filled where clean, a ring where shaky, half filled where too near to call, a cross without a word. */
export function MarkDot({ mark, cx, cy, r = 4.5, title }: Props) {
  const name = title ? <title>{title}</title> : null;
  if (mark === "none")
    return (
      <path className="stroke-soft" d={`M${cx - 4} ${cy - 4}l8 8m0-8l-8 8`} strokeWidth={2} fill="none">
        {name}
      </path>
    );
  const clean = mark === "clean";
  return (
    <g>
      <circle
        className={clean ? "fill-success stroke-success" : "stroke-soft"}
        fill={clean ? undefined : "none"}
        cx={cx}
        cy={cy}
        r={r}
        strokeWidth={2}
      >
        {name}
      </circle>
      {mark === "near" && <path className="fill-soft" d={`M${cx} ${cy - r}a${r} ${r} 0 0 1 0 ${2 * r}z`} />}
    </g>
  );
}
