import { useLettersOn } from "./useLetters";

/** Switches keys of a single sign off, for who speaks to the computer or is shaky on the keyboard. */
export function LettersSwitch() {
  const [isOn, setOn] = useLettersOn();
  return (
    <label className="flex items-center gap-2 mt-2">
      <input
        type="checkbox"
        className="checkbox checkbox-sm checkbox-primary"
        checked={isOn}
        onChange={(event) => setOn(event.target.checked)}
      />
      single letters, figures and signs are keys (Space, Enter and Esc always are)
    </label>
  );
}
