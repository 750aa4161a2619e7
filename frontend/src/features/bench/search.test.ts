import { describe, expect, it } from "vitest";
import { hasWords } from "./search";

describe("finding by words", () => {
  it.each([
    ["Strumming G D, any instrument", "strum", true],
    ["C major, any instrument", "strum", false],
    ["D dorian, triplets then sixteenths", "sixteen dor", true],
    ["D dorian, triplets then sixteenths", "dorian fives", false],
    ["F♯ minor, 3:2", "f♯", true],
    ["C major", "", true],
    ["C major", "  ,", true],
    ["Clarinet in B♭", "Clari", true],
    ["bass clarinet", "larinet", false],
  ])("%s: %s is %s", (text, wanted, found) => {
    expect(hasWords(text, wanted)).toBe(found);
  });
});
