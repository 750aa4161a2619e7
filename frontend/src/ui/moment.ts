const DAY = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long" });
const TIME = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** A moment as it is said: “24 November, 17:10”. */
export function moment(iso: string): string {
  const at = new Date(iso);
  return `${DAY.format(at)}, ${TIME.format(at)}`;
}

/** A day as it is said: “24 November”. */
export function day(iso: string): string {
  return DAY.format(new Date(iso));
}
