import { useEffect, useState } from "react";
import { keep, kept } from "../ui/kept";

type Theme = "fog" | "night";
const KEY = "theme";

/** The theme: dark on the stand and light elsewhere, until someone chooses otherwise for either. */
export function useTheme(isStand: boolean): { name: Theme; toggle: () => void } {
  const [chosen, setChosen] = useState(() => kept<{ stand?: Theme; desk?: Theme }>(KEY, true) ?? {});
  const name = isStand ? (chosen.stand ?? "night") : (chosen.desk ?? "fog");
  useEffect(() => {
    document.documentElement.dataset.theme = name;
  }, [name]);
  const toggle = () => {
    const other = name === "fog" ? "night" : "fog";
    const next = { ...chosen, [isStand ? "stand" : "desk"]: other };
    keep(KEY, next);
    setChosen(next);
  };
  return { name, toggle };
}
