import type { Choices, Plan } from "../../api/client";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { type Click, ClickWords } from "../../ui/brief/ClickWords";
import type { Refused } from "../../ui/brief/context";

export type Ladder = Pick<Plan, "clicks" | "click_order">;
type Props = {
  ladder: Ladder;
  choices: Choices;
  refusal: Refused | null;
  onChange: (ladder: Ladder) => void;
};

/** The click ladder, plan by plan: changed, added, taken out and put in order. */
export function ClickLadder({ ladder, choices, refusal, onChange }: Props) {
  const { clicks, click_order: order } = ladder;
  const set = (changed: Click[]) => onChange({ ...ladder, clicks: changed });
  const unused = choices.clicks.find(
    (one) => !clicks.some((click) => JSON.stringify(click) === JSON.stringify(one.fresh)),
  );
  return (
    <Brief label="The click ladder" refusal={refusal}>
      <p className="text-base">
        The clicks are passed{" "}
        <BriefSelect
          label="order of the click ladder"
          field="click_order"
          value={order}
          choices={choices.click_orders}
          onChange={(value) => onChange({ ...ladder, click_order: value as Ladder["click_order"] })}
        />
        :
      </p>
      <ol className="list-decimal pl-7" aria-label="Clicks in order">
        {clicks.map((click, index) => (
          <li key={index}>
            <ClickWords
              click={click}
              choices={choices}
              onChange={(changed) => set(clicks.with(index, changed))}
            />{" "}
            <span className="whitespace-nowrap">
              <button
                type="button"
                className="button button-small button-quiet"
                aria-label={`Click ${index + 1} earlier`}
                disabled={index === 0}
                onClick={() => set(moved(clicks, index, -1))}
              >
                Earlier
              </button>
              <button
                type="button"
                className="button button-small button-quiet"
                aria-label={`Click ${index + 1} later`}
                disabled={index === clicks.length - 1}
                onClick={() => set(moved(clicks, index, 1))}
              >
                Later
              </button>
              <button
                type="button"
                className="button button-small button-quiet"
                aria-label={`Take out click ${index + 1}`}
                onClick={() => set(clicks.filter((_, other) => other !== index))}
              >
                Take out
              </button>
            </span>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="button button-small"
        onClick={() => unused && set([...clicks, unused.fresh])}
      >
        One more click
      </button>
    </Brief>
  );
}

function moved(clicks: readonly Click[], index: number, by: 1 | -1): Click[] {
  const [one, other] = [clicks[index], clicks[index + by]];
  return one && other ? clicks.with(index, other).with(index + by, one) : [...clicks];
}
