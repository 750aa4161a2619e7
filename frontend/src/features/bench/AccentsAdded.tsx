import { useState } from "react";
import { keep, kept } from "../../ui/kept";

type Props = {
  id: number;
  /** That typed accents and those of the drill add up; empty where they do not. */
  sentence: string;
  onAlone: () => void;
};

/** Asks once whether typed accents stand alone. */
export function AccentsAdded({ id, sentence, onAlone }: Props) {
  const name = `accents-add.${id}`;
  const [isMeant, setMeant] = useState(() => kept<boolean>(name) === true);
  if (!sentence || isMeant) return null;
  return (
    <div role="status" className="card-plain !py-2 mb-2 flex flex-wrap items-center gap-2">
      <p className="flex-1 min-w-60">{sentence}</p>
      <button type="button" className="button button-small" onClick={onAlone}>
        Only those I typed
      </button>
      <button
        type="button"
        className="button button-small"
        onClick={() => {
          keep(name, true);
          setMeant(true);
        }}
      >
        Both
      </button>
    </div>
  );
}
