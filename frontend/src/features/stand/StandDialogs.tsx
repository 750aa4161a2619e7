import type { Choices } from "../../api/client";
import { Calibrate } from "./Calibrate";
import { FootSwitch } from "./FootSwitch";
import { Pads } from "./hearing/Pads";
import type { useHearing } from "./hearing/useHearing";

type Props = {
  open: "latency" | "switch" | "pads" | null;
  hearing: ReturnType<typeof useHearing>;
  /** Symbols of the hand row of what is played. */
  strokes: readonly string[];
  choices: Choices;
  footSwitch: string;
  onSwitch: (key: string) => void;
  onClose: () => void;
};

/** What opens over the stand: measuring the latency, learning pads, choosing the foot switch. */
export function StandDialogs({ open, choices, hearing, strokes, footSwitch, onSwitch, onClose }: Props) {
  switch (open) {
    case "latency":
      return (
        <Calibrate
          drill={choices.calibration}
          made={choices}
          of={hearing.key}
          setup={hearing.setup}
          stream={hearing.microphone.stream.current}
          listen={hearing.tellOfNotes}
          onClose={onClose}
        />
      );
    case "pads":
      return (
        <Pads
          device={hearing.by.device}
          pads={hearing.setup?.pads ?? {}}
          strokes={strokes}
          onKeep={hearing.keepPads}
          onClose={onClose}
        />
      );
    case "switch":
      return <FootSwitch chosen={footSwitch} onChosen={onSwitch} onClose={onClose} />;
    default:
      return null;
  }
}
