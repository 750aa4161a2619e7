import { useState } from "react";
import { Dialog } from "../../ui/Dialog";
import help from "./help.json";

/** The words of the app, each with what it means here. */
export function Glossary({ onClose }: { onClose: () => void }) {
  const [wanted, setWanted] = useState("");
  const found = help.glossary.filter(({ word, meaning }) =>
    `${word} ${meaning}`.toLowerCase().includes(wanted.trim().toLowerCase()),
  );
  return (
    <Dialog title="Words" onClose={onClose}>
      <label>
        Find
        <input className="field mb-3" value={wanted} onChange={(event) => setWanted(event.target.value)} />
      </label>
      {found.length === 0 && <p>No word of this kind. The guide may have it.</p>}
      <dl className="grid gap-y-2">
        {found.map(({ word, meaning }) => (
          <div key={word}>
            <dt className="font-bold">{word}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
