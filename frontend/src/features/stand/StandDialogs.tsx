import type { Choices } from "../../api/client";
import { Calibrate } from "./Calibrate";
import { FootSwitch } from "./FootSwitch";
import type { Latency } from "./latency";

type Props = {
  open: "latency" | "switch" | null;
  choices: Choices;
  footSwitch: string;
  onSwitch: (key: string) => void;
  onMeasured: (latency: Latency) => void;
  onClose: () => void;
};

/** What opens over the stand: measuring the latency, choosing the foot switch. */
export function StandDialogs({ open, choices, footSwitch, onSwitch, onMeasured, onClose }: Props) {
  switch (open) {
    case "latency":
      return (
        <Calibrate drill={choices.calibration} made={choices} onClose={onClose} onMeasured={onMeasured} />
      );
    case "switch":
      return <FootSwitch chosen={footSwitch} onChosen={onSwitch} onClose={onClose} />;
    default:
      return null;
  }
}
