import { type ReactNode, useState } from "react";
import { Dialog } from "../../ui/Dialog";

/** A part of what is set up: its name, what it is in one sentence, words that find it, and its controls. */
export type SetUpPart = { name: string; said: string; finds: string; shows: ReactNode };

type Props = { parts: readonly SetUpPart[]; onClose: () => void };

/** All that is set before playing and then left alone, in parts, found by a word. */
export function SetUp({ parts, onClose }: Props) {
  const [asked, setAsked] = useState("");
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean);
  const found = parts.filter(({ name, said, finds }) => {
    const text = `${name} ${said} ${finds}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <Dialog title="Set up" onClose={onClose} side>
      <label className="block mb-3">
        <span className="sr-only">Find in set up</span>
        {/* No search field of the browser’s: Esc would empty that, and closes the drawer here. */}
        <input
          className="field"
          placeholder="Find: voice, mirror, loop, microphone …"
          value={asked}
          onChange={(event) => setAsked(event.target.value)}
        />
      </label>
      {found.map((part) => (
        <section key={part.name} className="set-up-part" aria-label={part.name}>
          <h3 className="font-bold text-primary">{part.name}</h3>
          <p className="text-soft text-sm mb-1">{part.said}</p>
          {part.shows}
        </section>
      ))}
      {found.length === 0 && (
        <p role="status">
          Nothing here is called “{asked}”. There are{" "}
          {parts.map((part) => part.name.toLowerCase()).join(", ")}.
        </p>
      )}
    </Dialog>
  );
}
