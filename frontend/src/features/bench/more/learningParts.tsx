import type { Drill } from "../../../api/client";
import { TagWords, WayInWords } from "../LayerWords";
import { CueWords } from "./CueWords";
import type { Part } from "./part";
import { StageCountWords } from "./StageCountWords";

const LONE_CUE: Drill["cues"] = [{ text: "drop the wrist", where: "all", number: 1, step: "whole" }];

/** How it is learnt and found again. */
export const LEARNING_PARTS: Part[] = [
  {
    offer: "a way in",
    clause: "learning",
    why: "Steps that the stand goes through: listen, say, the hits, halves, everything.",
    isUsed: (drill) => drill.way_in.length > 0,
    start: ({ schools }) => ({ way_in: schools[0]?.steps ?? ["whole"] }),
    words: (props) => <WayInWords {...props} />,
  },
  {
    offer: "a count for a step of the way in",
    clause: "learning",
    why: "Said in syllables first, in numbers later: each step as it is counted best.",
    isUsed: (drill) => drill.stage_counts.length > 0,
    fits: (drill) => drill.way_in.length > 0,
    start: (_, drill) => ({
      stage_counts: [
        { step: drill.way_in[0] ?? "whole", counting: { system: "syllables", own: "", runs: "bar" } },
      ],
    }),
    words: (props) => <StageCountWords {...props} />,
  },
  {
    offer: "a cue",
    clause: "learning",
    why: "A line of technique for a leg, a station or a step: on the stand beside the word, and on the hand-out.",
    isUsed: (drill) => drill.cues.length > 0,
    start: { cues: LONE_CUE },
    words: (props) => <CueWords {...props} />,
  },
  {
    offer: "tags",
    clause: "learning",
    why: "Words to find it by.",
    isUsed: (drill) => drill.tags.length > 0,
    start: { tags: ["new"] },
    words: (props) => <TagWords {...props} />,
  },
];
