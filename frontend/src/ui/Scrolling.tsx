import type { ReactNode } from "react";

/** What may be wider than a phone: it scrolls by itself, and the keyboard reaches it. */
export function Scrolling({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section
      className="overflow-x-auto"
      aria-label={name}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
      tabIndex={0}
    >
      {children}
    </section>
  );
}
