import { BriefField } from "../../../ui/brief/BriefField";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { ReduceWords } from "../LayerWords";
import { SwingWords } from "../SwingWords";
import type { Part, PartProps } from "./part";

/** How time is bent and counted, and what of it is played. */
export const TIME_PARTS: Part[] = [
  {
    offer: "swing",
    clause: "time",
    why: "The first note of each pair is longer.",
    isUsed: (drill) => drill.swing.ratio !== "1",
    start: { swing: { ratio: "2", on: 2 } },
    words: ({ drill, choices, onChange }) => (
      <SwingWords swing={drill.swing} choices={choices} onChange={(swing) => onChange({ swing }, "swing")} />
    ),
  },
  {
    offer: "other count words",
    clause: "time",
    why: "Syllables, the & only, your own words; or numbers that go on over the bars.",
    isUsed: (drill) => drill.counting.system !== "numbers" || drill.counting.runs !== "bar",
    start: { counting: { system: "syllables", own: "", runs: "bar" } },
    words: (props) => <CountingWords {...props} />,
  },
  {
    offer: "a part of it alone",
    clause: "time",
    why: "The hits, half of it, or one hand: what is left out keeps its time in silence.",
    isUsed: (drill) => drill.reduce.part !== "everything",
    start: { reduce: { part: "hits", hand: "", beats: 1 } },
    words: (props) => <ReduceWords {...props} />,
  },
];

/** The words that are said, and those of the teacher's own. */
function CountingWords({ drill, choices, onChange }: PartProps) {
  const { counting } = drill;
  return (
    <>
      counted{" "}
      <BriefSelect
        label="count words"
        field="counting.system"
        value={counting.system}
        choices={choices.countings}
        onChange={(system) =>
          onChange(
            {
              counting: {
                ...counting,
                system: system as typeof counting.system,
                own: system === "own" && !counting.own ? "2: # and; 3: # o la" : counting.own,
              },
            },
            "counting",
          )
        }
      />{" "}
      <BriefSelect
        label="how far the count goes on"
        field="counting.runs"
        value={counting.runs}
        choices={choices.count_runs}
        onChange={(runs) =>
          onChange({ counting: { ...counting, runs: runs as typeof counting.runs } }, "counting")
        }
      />
      {counting.system === "own" && (
        <>
          {" "}
          <BriefField
            label="your own count words"
            field="counting.own"
            long
            value={counting.own}
            hint="Each division and its words, parted by ;  2: # und; 3: # o la. # is the number of the beat."
            onChange={(own) => onChange({ counting: { ...counting, own } }, "counting")}
          />
        </>
      )}
    </>
  );
}
