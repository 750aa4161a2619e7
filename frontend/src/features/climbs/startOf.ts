import type { Plan, Schemas } from "../../api/client";

type Line = Schemas["DrillLine"];

/** A plan that starts where its drill stands; what someone chose otherwise than `before` stood stays. */
export function startOf(plan: Plan, drill: Line | undefined, before?: Line): Plan {
  if (!drill) return plan;
  const start = before && plan.start !== before.bpm ? plan.start : drill.bpm;
  const { target } = plan;
  const isOwn = target.kind !== "bpm" || (before && target.bpm !== before.target_bpm);
  return { ...plan, start, target: isOwn ? target : { ...target, bpm: drill.target_bpm } };
}
