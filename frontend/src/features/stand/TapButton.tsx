import { Key } from "../../ui/Key";

type Props = { name: string; keys: string[]; onTap: (eventMs: number) => void };

/** A place to tap: it counts as it is touched, not as it is let go. */
export function TapButton({ name, keys, onTap }: Props) {
  return (
    <button
      type="button"
      className="button"
      onPointerDown={(event) => {
        event.preventDefault();
        onTap(event.timeStamp);
      }}
    >
      {name}{" "}
      {keys.map((key) => (
        <Key key={key} name={key} />
      ))}
    </button>
  );
}
