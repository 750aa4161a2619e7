import { useEffect, useId, useRef, useState } from "react";
import { Key } from "../Key";
import { useClosing } from "../useClosing";
import { useLetters } from "../useLetters";

type Offer = { offer: string; why: string };
type Props<T extends Offer> = { parts: readonly T[]; onChoose: (part: T) => void };

/** So many names stand beside the word; the rest is found. */
const MOST_NAMED = 9;

/** “and more …”: what else there is, found by typing; nothing when all of it is in use. */
export function FindMore<T extends Offer>({ parts, onChoose }: Props<T>) {
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState("");
  const box = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const id = useId();
  useLetters("+", () => setOpen(true), { useKey: true, splitKey: "|", preventDefault: true });
  useClosing(box, open, () => setOpen(false), "button");
  useEffect(() => {
    if (open) field.current?.focus();
  }, [open]);
  if (parts.length === 0) return null;
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  // What is called so stands before what only speaks of it.
  const named = parts.filter((part) => has(part.offer));
  const found = [
    ...named,
    ...parts.filter((part) => !named.includes(part) && has(`${part.offer} ${part.why}`)),
  ];
  const choose = (part: T | undefined) => {
    if (!part) return;
    setOpen(false);
    setAsked("");
    onChoose(part);
  };
  return (
    <div ref={box} className="relative clause find-more">
      <button
        type="button"
        className="font-semibold text-primary cursor-pointer"
        aria-expanded={open}
        aria-controls={id}
        onClick={() => setOpen(!open)}
      >
        and more … <Key name="+" />
      </button>{" "}
      <span className="find-names">
        {parts
          .slice(0, MOST_NAMED)
          .map((part) => part.offer)
          .join(", ")}
        {parts.length > MOST_NAMED && " …"}
      </span>
      {open && (
        <div id={id} className="panel">
          <input
            ref={field}
            type="search"
            className="field mb-2"
            aria-label="find what else there is"
            placeholder="Find: swing, left hand, breath …"
            value={asked}
            onChange={(event) => setAsked(event.target.value)}
            onKeyDown={(event) => event.key === "Enter" && choose(found[0])}
          />
          <ul className="max-h-72 overflow-auto" aria-label="What else there is">
            {found.map((part) => (
              <li key={part.offer}>
                <button type="button" className="more-offer" onClick={() => choose(part)}>
                  <strong>{part.offer}</strong> <span className="text-soft text-sm">{part.why}</span>
                </button>
              </li>
            ))}
          </ul>
          {found.length === 0 && <p role="status">Nothing is called “{asked}” here. Take out a word.</p>}
        </div>
      )}
    </div>
  );
}
