/** Words of a drill that are said only where they differ from the usual, or once someone asked for them. */
import { createContext, type ReactNode, useContext } from "react";
import type { Drill } from "../../api/client";
import { BriefContext } from "../../ui/brief/context";

export type SeldomName =
  | "start note"
  | "turning note"
  | "last note"
  | "how stages begin"
  | "pattern begins anew";

type Seldom = {
  offer: SeldomName;
  why: string;
  /** Whether the drill has such a word. */
  has: (drill: Drill, hasClosing: boolean) => boolean;
  isUsual: (drill: Drill) => boolean;
};

const isRun = ({ material }: Drill) => material.kind === "scale_run" || material.kind === "arpeggio";

export const SELDOM: readonly Seldom[] = [
  {
    offer: "start note",
    why: "From another degree, or an inversion.",
    has: isRun,
    isUsual: ({ material }) => !("start" in material) || material.start === 1,
  },
  {
    offer: "turning note",
    why: "Once or twice, where a run turns round.",
    has: (drill) =>
      isRun(drill) && "shape" in drill.material && !["up", "down"].includes(drill.material.shape),
    isUsual: ({ material }) => !("top" in material) || material.top === "once",
  },
  {
    offer: "last note",
    why: "A closing tonic of its own, or shared with what follows.",
    has: (_, hasClosing) => hasClosing,
    isUsual: ({ closing }) => closing === "by_seam",
  },
  {
    offer: "how stages begin",
    why: "On the bar line, straight on, after a rest or a breath.",
    has: () => true,
    isUsual: ({ seam }) => seam === "hold",
  },
  {
    offer: "pattern begins anew",
    why: "With each beat, bar or stage; or it runs on.",
    has: ({ hands }) => hands.kind === "by_order",
    isUsual: ({ hands }) => !("restart" in hands) || hands.restart === "never",
  },
];

/** What someone asked for on this page, and the drill it is about. */
export const SeldomContext = createContext<{ drill: Drill | null; asked: ReadonlySet<string> }>({
  drill: null,
  asked: new Set(),
});

/** Its words, where they differ from the usual, were asked for, or are refused. */
export function Seldom({ name, field, children }: { name: SeldomName; field: string; children: ReactNode }) {
  const { drill, asked } = useContext(SeldomContext);
  const { refused } = useContext(BriefContext);
  const isUsual = drill !== null && (SELDOM.find((one) => one.offer === name)?.isUsual(drill) ?? false);
  return isUsual && !asked.has(name) && refused?.field !== field ? null : children;
}
