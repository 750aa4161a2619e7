import type { Choices } from "../../../api/client";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { type HeardBy, hasDevice } from "./heardBy";

type Props = {
  by: HeardBy;
  /** Names of the devices that there are, of the source that is chosen. */
  devices: readonly string[];
  choices: Choices;
  disabled: boolean;
  onChange: (by: HeardBy) => void;
};

const SOURCES = [
  { value: "taps", label: "taps", why: "Tap J and F, or the pad, with each note." },
  {
    value: "midi",
    label: "MIDI",
    why: "A keyboard or pads: pitch, velocity, and how long each note sounds.",
  },
  {
    value: "microphone",
    label: "the microphone",
    why: "Any instrument, in a quiet room; with headphones the click is not heard in it.",
  },
  { value: "by_ear", label: "your ear", why: "You mark the take yourself: clean or shaky." },
  { value: "stand_in", label: "the stand-in", why: "A simulated player taps in place of a person." },
];
const STANDS_IN = "stand-in ";
const WHY = "A simulated player at the device, to see without one what a take looks like.";

/** By what a take is heard, and from which device; a stand-in may sit at each. */
export function HeardByWords({ by, devices, choices, disabled, onChange }: Props) {
  const first = choices.stand_ins[0]?.value ?? null;
  const standIns = choices.stand_ins.map((one) => ({
    value: STANDS_IN + one.value,
    label: by.source === "stand_in" ? one.label : `the stand-in, ${one.label}`,
    why: WHY,
  }));
  const known = by.device && !devices.includes(by.device) ? [by.device, ...devices] : devices;
  const own = [
    { value: "", label: by.source === "midi" ? "no device yet" : "the usual one", why: "" },
    ...known.map((name) => ({
      value: `device ${name}`,
      label: devices.includes(name) ? name : `${name}, not connected`,
      why: "",
    })),
  ];
  return (
    <>
      <BriefSelect
        label="heard by"
        field="source"
        value={by.source}
        choices={SOURCES}
        disabled={disabled}
        onChange={(source) => onChange({ source, device: "", standIn: source === "stand_in" ? first : null })}
      />
      {(hasDevice(by.source) || by.source === "stand_in") && (
        <>
          {by.source === "stand_in" ? ", " : ": "}
          <BriefSelect
            label="device"
            field="device"
            value={by.standIn !== null ? STANDS_IN + by.standIn : by.device ? `device ${by.device}` : ""}
            choices={by.source === "stand_in" ? standIns : [...own, ...standIns]}
            disabled={disabled}
            onChange={(value) =>
              onChange(
                value.startsWith(STANDS_IN)
                  ? { ...by, device: "", standIn: value.slice(STANDS_IN.length) }
                  : { ...by, device: value.replace(/^device /, ""), standIn: null },
              )
            }
          />
        </>
      )}
    </>
  );
}
