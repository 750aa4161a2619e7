import type { Tread } from "../../api/client";
import { Scrolling } from "../../ui/Scrolling";

const WORDS: Record<Tread["state"], string> = { done: "done", now: "now", ahead: "", target: "target" };

type Props = {
  treads: readonly Tread[];
  sign: string;
};

/** Every rung with its speed, its gap and what was played on it. */
export function RungTable({ treads, sign }: Props) {
  const hasClicks = treads.some((tread) => tread.click_words);
  const hasWords = treads.some((tread) => tread.words);
  const hasBreaths = treads.some((tread) => tread.breaths);
  return (
    <details className="card-plain mt-4" open={treads.length <= 16}>
      <summary className="cursor-pointer text-primary font-bold">All {treads.length} rungs</summary>
      <Scrolling name="All rungs">
        <table className="figures-table mt-2 max-w-2xl">
          <thead>
            <tr>
              <th scope="col">rung</th>
              <th scope="col">{sign} =</th>
              <th scope="col">notes/s</th>
              <th scope="col">gap ms</th>
              {hasWords && <th scope="col">what</th>}
              {hasClicks && <th scope="col">click</th>}
              {hasBreaths && <th scope="col">breaths</th>}
              <th scope="col">clean</th>
              <th scope="col">shaky</th>
              <th scope="col">state</th>
            </tr>
          </thead>
          <tbody>
            {treads.map((tread) => (
              <tr key={tread.number} aria-current={tread.state === "now" ? "step" : undefined}>
                <th scope="row">{tread.number}</th>
                <td className="font-bold">{tread.bpm_label}</td>
                <td>{tread.nps}</td>
                <td>{tread.gap_ms}</td>
                {hasWords && <td>{tread.words || "all of it"}</td>}
                {hasClicks && <td className="whitespace-nowrap">{tread.click_words}</td>}
                {hasBreaths && <td className="whitespace-nowrap">{tread.breaths}</td>}
                <td>{tread.marks.filter((mark) => mark === "clean").length || ""}</td>
                <td>{tread.marks.filter((mark) => mark === "shaky").length || ""}</td>
                <td>{WORDS[tread.state]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolling>
    </details>
  );
}
