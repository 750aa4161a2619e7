import { useEffect } from "react";

/** Large, the stand has the whole screen: a class on the root says so, as cheap for the browser as a rule can be. */
export function useLarge(large: boolean): void {
  useEffect(() => {
    const { classList } = document.documentElement;
    classList.toggle("is-large", large);
    return () => classList.remove("is-large");
  }, [large]);
}
