import { type ReactNode, useRef, useState } from "react";
import { useClosing } from "./useClosing";

type Props = { name?: string; children: ReactNode };

/** What is done now and then, behind one button: links and buttons, one under the other. */
export function Menu({ name = "More …", children }: Props) {
  const box = useRef<HTMLDetailsElement>(null);
  const [isOpen, setOpen] = useState(false);
  useClosing(box, isOpen, () => setOpen(false), "summary");
  return (
    <details
      ref={box}
      className="menu-box"
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="button button-quiet">{name}</summary>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a press on what it holds closes it */}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: a key that presses what it holds is a press as well */}
      <div
        className="menu-items"
        onClick={(event) => {
          if ((event.target as Element).closest("a, button")) setOpen(false);
        }}
      >
        {children}
      </div>
    </details>
  );
}
