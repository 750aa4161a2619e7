import type { Drill } from "../../api/client";

/** Whether a material says its own divisions, so that the legs only say how often it is played. */
export function hasOwnRhythm(material: Drill["material"]): boolean {
  switch (material.kind) {
    case "count":
    case "cells":
    case "strum":
      return true;
    case "line":
      return material.rhythm === "own";
    default:
      return false;
  }
}
