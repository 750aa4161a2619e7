import { type HotkeyCallback, type Options, useHotkeys } from "react-hotkeys-hook";
import { keptChoice } from "./keptChoice";

/** Whether single letters, figures and signs are keys: who speaks to the computer switches them off. */
export const useLettersOn = keptChoice("letters", true);

/** A key that is a single letter, figure or sign: it rests while those are switched off, and behind an open dialog. */
export function useLetters(keys: string, act: HotkeyCallback, options: Options = {}): void {
  const [isOn] = useLettersOn();
  useHotkeys(keys, act, { enabled: isOn, ...options });
}
