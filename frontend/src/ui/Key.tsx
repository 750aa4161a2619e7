/** The key that does the same, beside what it does; for eyes only. */
export function Key({ name }: { name: string }) {
  return (
    <span className="key" aria-hidden="true">
      {name}
    </span>
  );
}
