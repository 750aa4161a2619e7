import { type ReactNode, useEffect, useRef } from "react";

type Props = { name?: string; children: ReactNode };

/** What is done now and then, behind one button: links and buttons, one under the other. */
export function Menu({ name = "More …", children }: Props) {
  const box = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    const away = (event: Event) => {
      if (box.current?.open && !box.current.contains(event.target as Node)) box.current.open = false;
    };
    document.addEventListener("pointerdown", away);
    return () => document.removeEventListener("pointerdown", away);
  }, []);
  return (
    <details
      ref={box}
      className="menu-box"
      onKeyDown={(event) => {
        if (event.key !== "Escape" || !box.current?.open) return;
        event.stopPropagation();
        box.current.open = false;
        box.current.querySelector("summary")?.focus();
      }}
    >
      <summary className="button button-quiet">{name}</summary>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a press on what it holds closes it */}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: a key that presses what it holds is a press as well */}
      <div
        className="menu-items"
        onClick={(event) => {
          if (box.current && (event.target as Element).closest("a, button")) box.current.open = false;
        }}
      >
        {children}
      </div>
    </details>
  );
}
