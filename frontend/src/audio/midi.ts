/** MIDI keyboards, pads and pedals: which there are, what comes from them, and when they come and go. */

/** What was struck or let go, or a pedal: a note of 0 to 127 with its velocity, or the number of a control. */
export type Struck =
  | { kind: "on"; note: number; velocity: number }
  | { kind: "off"; note: number }
  | { kind: "pedal"; control: number; isDown: boolean };

/** A device as it is chosen from. */
export type MidiDevice = { id: string; name: string };

const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;
const CONTROL = 0xb0;
const SYSEX = 0xf0;
const REAL_TIME = 0xf8;
/** Data bytes behind each kind of channel message, by its upper four bits. */
const DATA_BYTES: Record<number, number> = { 8: 2, 9: 2, 10: 2, 11: 2, 12: 1, 13: 1, 14: 2 };
/** From this value on a pedal is down. */
const DOWN = 64;

/** Reads a stream of bytes: a keyboard may leave out the status where it stays the same, and put the clock between. */
export class MidiReader {
  #status = 0;
  #data: number[] = [];
  #inSysex = false;

  read(bytes: Iterable<number>): Struck[] {
    const found: Struck[] = [];
    for (const byte of bytes) {
      // The clock and its like may come anywhere, and change nothing.
      if (byte >= REAL_TIME) continue;
      if (byte >= 0x80) {
        this.#inSysex = byte === SYSEX;
        this.#status = byte < SYSEX ? byte : 0;
        this.#data = [];
        continue;
      }
      if (this.#inSysex || !this.#status) continue;
      this.#data.push(byte);
      if (this.#data.length < (DATA_BYTES[this.#status >> 4] ?? 2)) continue;
      const struck = struckOf(this.#status & 0xf0, this.#data);
      if (struck) found.push(struck);
      this.#data = [];
    }
    return found;
  }
}

function struckOf(kind: number, [first = 0, second = 0]: number[]): Struck | null {
  if (kind === NOTE_ON && second > 0) return { kind: "on", note: first, velocity: second };
  if (kind === NOTE_ON || kind === NOTE_OFF) return { kind: "off", note: first };
  if (kind === CONTROL) return { kind: "pedal", control: first, isDown: second >= DOWN };
  return null;
}

/** Something that sends MIDI: a device, or the stand-in. */
export type Sender = Pick<MIDIInput, "id" | "name"> & EventTarget;

/** Whether this browser knows MIDI. */
export const hasMidi = (): boolean => typeof navigator.requestMIDIAccess === "function";

/** The devices that are connected, from when they are asked for on. */
export class Midi {
  #access: MIDIAccess | null = null;
  #listening: { sender: EventTarget; handle: (event: Event) => void }[] = [];
  /** Called when a device comes or goes. */
  onDevices: ((devices: MidiDevice[]) => void) | null = null;
  /** Called with what comes from the device that is listened to, and the time stamp of its event, in ms. */
  onStruck: ((struck: Struck, eventMs: number) => void) | null = null;

  /** Ask for the devices; rejects where the browser or the person says no. */
  async open(): Promise<MidiDevice[]> {
    this.#access ??= await navigator.requestMIDIAccess({ sysex: false });
    this.#access.onstatechange = () => this.onDevices?.(this.devices());
    return this.devices();
  }

  devices(): MidiDevice[] {
    if (!this.#access) return [];
    return [...this.#access.inputs.values()]
      .filter((one) => one.state === "connected")
      .map((one) => ({ id: one.id, name: one.name ?? "MIDI device" }));
  }

  /** Listen to one device by its name; to none for null. A device of that name that comes back is heard again. */
  listen(name: string | null): void {
    this.stop();
    if (name === null || !this.#access) return;
    for (const input of this.#access.inputs.values())
      if ((input.name ?? "MIDI device") === name) this.listenTo(input);
  }

  /** Listen to something that sends MIDI. */
  listenTo(sender: EventTarget): void {
    const reader = new MidiReader();
    const handle = (event: Event) => {
      const { data, timeStamp } = event as MIDIMessageEvent;
      for (const struck of reader.read(data ?? [])) this.onStruck?.(struck, timeStamp);
    };
    sender.addEventListener("midimessage", handle);
    this.#listening.push({ sender, handle });
  }

  stop(): void {
    for (const { sender, handle } of this.#listening) sender.removeEventListener("midimessage", handle);
    this.#listening = [];
  }
}
