/** So many bars to choose from, 0 to `most`, as a list of a brief takes them. */
export const barsTo = (most: number, why = "") =>
  Array.from({ length: most + 1 }, (_, bars) => ({
    value: String(bars),
    label: bars === 0 ? "no bar" : bars === 1 ? "1 bar" : `${bars} bars`,
    why,
  }));
