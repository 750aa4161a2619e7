import { Key } from "../../ui/Key";
import { TapButton } from "./TapButton";

type Props = {
  playing: boolean;
  onToggle: () => void;
  onTap: (eventMs: number, key?: string) => void;
  /** Two hands have a place to tap each. */
  twoHands: boolean;
  /** Null where there is none. */
  onSlower: (() => void) | null;
  onFaster: (() => void) | null;
  muted: { click: boolean; notes: boolean };
  onMuted: (muted: Props["muted"]) => void;
  large: boolean;
  onLarge: (large: boolean) => void;
};

/** Start, tap, slower and faster, and what is heard: the controls that are used while playing. */
export function StandButtons(props: Props) {
  const { playing, onToggle, onTap, twoHands, onSlower, onFaster, muted, onMuted, large, onLarge } = props;
  return (
    <div className="stand-buttons flex flex-wrap items-center gap-x-2 gap-y-2">
      <button type="button" className="button button-start" onClick={onToggle}>
        {playing ? "Stop" : "Start"} <Key name="Space" />
      </button>
      {twoHands ? (
        <>
          <TapButton name="Left" keys={["F"]} onTap={(eventMs) => onTap(eventMs, "f")} />
          <TapButton name="Right" keys={["J"]} onTap={(eventMs) => onTap(eventMs, "j")} />
        </>
      ) : (
        <TapButton name="Tap along" keys={["J", "F"]} onTap={(eventMs) => onTap(eventMs)} />
      )}
      <button
        type="button"
        className="button button-quiet"
        disabled={!onSlower}
        onClick={onSlower ?? undefined}
      >
        Slower <Key name="[" />
      </button>
      <button
        type="button"
        className="button button-quiet"
        disabled={!onFaster}
        onClick={onFaster ?? undefined}
      >
        Faster <Key name="]" />
      </button>
      <button
        type="button"
        className="button button-quiet"
        aria-pressed={muted.click}
        onClick={() => onMuted({ ...muted, click: !muted.click })}
      >
        {muted.click ? "Click is muted" : "Mute the click"} <Key name="M" />
      </button>
      <button
        type="button"
        className="button button-quiet"
        aria-pressed={muted.notes}
        onClick={() => onMuted({ ...muted, notes: !muted.notes })}
      >
        {muted.notes ? "Notes are muted" : "Mute the notes"}
      </button>
      <button
        type="button"
        className="button button-quiet"
        aria-pressed={large}
        onClick={() => onLarge(!large)}
      >
        {large ? "Normal size" : "Large"} <Key name="L" />
      </button>
    </div>
  );
}
