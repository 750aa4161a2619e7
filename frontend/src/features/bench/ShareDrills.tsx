import { useState } from "react";
import { files, type Schemas } from "../../api/client";
import { Dialog } from "../../ui/Dialog";

type Props = { drills: readonly Schemas["DrillLine"][]; onClose: () => void };

/** Drills that go to a colleague as one file, with their remedies and variants; no student is in it. */
export function ShareDrills({ drills, onClose }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const toggle = (id: number) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const ids = drills.filter((one) => chosen.has(one.id)).map((one) => one.id);
  return (
    <Dialog title="Share drills" onClose={onClose}>
      <p>
        One file for a colleague, with the remedies and variants of each. No student and no take is in it.
      </p>
      <ul className="my-3">
        {drills.map((one) => (
          <li key={one.id}>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={chosen.has(one.id)}
                onChange={() => toggle(one.id)}
              />
              {one.title}
            </label>
          </li>
        ))}
      </ul>
      {ids.length > 0 ? (
        <a className="button button-first" href={files.shared(ids)} onClick={onClose}>
          Save {ids.length === 1 ? "one drill" : `${ids.length} drills`}
        </a>
      ) : (
        <p className="text-soft">Choose at least one.</p>
      )}
    </Dialog>
  );
}
