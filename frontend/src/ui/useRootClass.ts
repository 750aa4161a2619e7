import { useEffect } from "react";

/** A class on the root while something holds of the whole screen, as cheap for the browser as a rule can be. */
export function useRootClass(name: string, isOn: boolean): void {
  useEffect(() => {
    const { classList } = document.documentElement;
    classList.toggle(name, isOn);
    return () => classList.remove(name);
  }, [name, isOn]);
}
