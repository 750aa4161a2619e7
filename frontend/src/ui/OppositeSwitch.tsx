import { useOpposite } from "./useOpposite";

/** Turns rail, neck and keys round, for a student who sits opposite. */
export function OppositeSwitch() {
  const [opposite, setOpposite] = useOpposite();
  return (
    <label className="flex items-center gap-2 text-soft">
      <input
        type="checkbox"
        className="checkbox checkbox-sm checkbox-primary"
        checked={opposite}
        onChange={(event) => setOpposite(event.target.checked)}
      />
      from the student’s side, as in a mirror
    </label>
  );
}
