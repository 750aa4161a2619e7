import { useEffect, useState } from "react";

/** Says what is being waited for, but only once it has taken 300 ms. */
export function Loading({ what }: { what: string }) {
  const slow = useSlow(true);
  return (
    <p role="status" className="p-4 text-soft">
      {slow ? `Fetching ${what} …` : ""}
    </p>
  );
}

/** Whether something has been going on for more than 300 ms. */
export function useSlow(busy: boolean): boolean {
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    if (!busy) {
      setSlow(false);
      return;
    }
    const timer = setTimeout(() => setSlow(true), 300);
    return () => clearTimeout(timer);
  }, [busy]);
  return slow;
}
