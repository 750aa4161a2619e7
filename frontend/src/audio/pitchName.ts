const NAMES = ["C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"];

/** How a MIDI note is called: 60 is C4. */
export const pitchName = (midi: number): string => `${NAMES[midi % 12]}${Math.floor(midi / 12) - 1}`;
