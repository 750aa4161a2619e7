import type { Choices, Drill, Plan } from "../../api/client";

type Of = { value: string; fresh: { kind: string }; hints: Record<string, string> };

/** What the server says of the numbers of a part: “material.beats” → “1 to 256. …”. */
function hintsOf(part: string, kinds: readonly Of[], kind: string): Record<string, string> {
  const found = kinds.find((one) => one.fresh.kind === kind)?.hints ?? {};
  return Object.fromEntries(Object.entries(found).map(([field, hint]) => [`${part}.${field}`, hint]));
}

/** The hints of all parts of a drill. */
export function drillHints({ material, hands, accents, click }: Drill, choices: Choices) {
  return {
    ...hintsOf("material", choices.materials, material.kind),
    ...hintsOf("hands", choices.hands, hands.kind),
    ...hintsOf("accents", choices.accents, accents.kind),
    ...hintsOf("click", choices.clicks, click.kind),
  };
}

/** The hints of all parts of a plan. */
export function planHints({ target, rule }: Plan, choices: Choices) {
  return { ...hintsOf("target", choices.targets, target.kind), ...hintsOf("rule", choices.rules, rule.kind) };
}
