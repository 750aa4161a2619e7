import { describe, expect, it } from "vitest";
import { Midi, MidiReader, type Struck } from "./midi";

const on = (note: number, velocity: number): Struck => ({ kind: "on", note, velocity });
const off = (note: number): Struck => ({ kind: "off", note });

describe("a stream of MIDI", () => {
  it.each<[string, number[], Struck[]]>([
    ["a note", [0x90, 60, 80], [on(60, 80)]],
    ["a note on of velocity 0 as let go", [0x90, 60, 80, 0x90, 60, 0], [on(60, 80), off(60)]],
    ["a status that is left out", [0x91, 60, 80, 64, 70, 60, 0], [on(60, 80), on(64, 70), off(60)]],
    ["the clock inside a message", [0x90, 0xf8, 60, 0xfe, 80], [on(60, 80)]],
    ["nothing of what is exclusive", [0xf0, 0x7e, 60, 80, 0xf7, 0x90, 61, 81], [on(61, 81)]],
    ["one data byte of a change of program", [0xc0, 5, 0x90, 60, 80], [on(60, 80)]],
    [
      "a pedal",
      [0xb0, 64, 127, 64, 0],
      [
        { kind: "pedal", control: 64, isDown: true },
        { kind: "pedal", control: 64, isDown: false },
      ],
    ],
    ["data without a status", [60, 80, 0x80, 60, 64], [off(60)]],
  ])("reads %s", (_, bytes, found) => {
    expect(new MidiReader().read(bytes)).toEqual(found);
    // However the bytes come, the same is read.
    const reader = new MidiReader();
    expect(bytes.flatMap((byte) => reader.read([byte]))).toEqual(found);
  });
});

it("listens to the device that is chosen, and to none once it is let go", () => {
  const midi = new Midi();
  const heard: [Struck, number][] = [];
  midi.onStruck = (struck, eventMs) => heard.push([struck, eventMs]);
  const keyboard = new EventTarget();
  const strike = () =>
    keyboard.dispatchEvent(Object.assign(new Event("midimessage"), { data: new Uint8Array([0x90, 60, 80]) }));
  midi.listenTo(keyboard);
  strike();
  midi.stop();
  strike();
  expect(heard.map(([struck]) => struck)).toEqual([on(60, 80)]);
});
