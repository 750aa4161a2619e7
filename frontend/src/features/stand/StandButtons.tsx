import type { Choice } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { Key } from "../../ui/Key";
import type { Practice } from "./practice";
import { TapButton } from "./TapButton";

type Props = {
  playing: boolean;
  onToggle: () => void;
  onTap: (eventMs: number, key?: string) => void;
  /** Two hands have a place to tap each. */
  twoHands: boolean;
  /** Whether a take is heard by taps: on a phone the place for them is large then. */
  isTapped: boolean;
  muted: { click: boolean; notes: boolean };
  onMuted: (muted: Props["muted"]) => void;
  practice: Practice;
  onPractice: (practice: Practice) => void;
  loops: readonly Pick<Choice, "value" | "label" | "why">[];
  large: boolean;
  onLarge: (large: boolean) => void;
};

/** Start, tap, and what is heard: the controls that are used while playing, in view at any size. */
export function StandButtons(props: Props) {
  const { playing, onToggle, onTap, twoHands, isTapped, muted, onMuted, large, onLarge } = props;
  const { practice, onPractice } = props;
  const setLoop = (loop: string) => onPractice({ ...practice, loop });
  return (
    <div className={`stand-buttons ${playing && isTapped ? "stand-pads" : ""}`}>
      <button type="button" className="button button-start" onClick={onToggle}>
        {playing ? "Stop" : "Start"} <Key name="Space" />
      </button>
      {twoHands ? (
        <>
          <TapButton name="Left" keys={["F"]} onTap={(eventMs) => onTap(eventMs, "f")} />
          <TapButton name="Right" keys={["J"]} onTap={(eventMs) => onTap(eventMs, "j")} />
        </>
      ) : (
        <TapButton name="Tap" keys={["J", "F"]} onTap={(eventMs) => onTap(eventMs)} />
      )}
      <div className="stand-more">
        <button
          type="button"
          className="button button-quiet"
          onClick={() => onMuted({ ...muted, click: !muted.click })}
        >
          {muted.click ? "Click off" : "Click on"} <Key name="M" />
        </button>
        <button
          type="button"
          className="button button-quiet"
          onClick={() => onMuted({ ...muted, notes: !muted.notes })}
        >
          {muted.notes ? "Notes off" : "Notes on"}
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-pressed={practice.slow}
          onClick={() => onPractice({ ...practice, slow: !practice.slow })}
        >
          Slow {practice.share} <Key name="S" />
        </button>
        <span className="stand-loop">
          <span aria-hidden="true">Loop:</span>{" "}
          <BriefSelect
            label="part that goes round"
            field="loop"
            value={practice.loop.startsWith("bars") ? "bars" : practice.loop}
            choices={props.loops}
            onChange={(loop) => setLoop(loop === "bars" ? "bars 1 1" : loop)}
          />{" "}
          {practice.loop.startsWith("bars") && <Bars loop={practice.loop} onLoop={setLoop} />}
        </span>
        <button
          type="button"
          className="button button-quiet ml-auto"
          aria-pressed={large}
          onClick={() => onLarge(!large)}
        >
          Large <Key name="L" />
        </button>
      </div>
    </div>
  );
}

/** The first and the last bar that go round. */
function Bars({ loop, onLoop }: { loop: string; onLoop: (loop: string) => void }) {
  const [, first = "1", last = "1"] = loop.split(" ");
  const plain = (text: string) => text.replaceAll(" ", "") || "0";
  return (
    <>
      <BriefField
        label="first bar that goes round"
        field="loop"
        numeric
        value={first}
        onChange={(text) => onLoop(`bars ${plain(text)} ${last}`)}
      />
      <span>to</span>
      <BriefField
        label="last bar that goes round"
        field="loop.last"
        numeric
        value={last}
        onChange={(text) => onLoop(`bars ${first} ${plain(text)}`)}
      />
    </>
  );
}
