import { describe, expect, it } from "vitest";
import { elapsed, PLAY, played, REST, rested, startOfPlay } from "./rest";

describe("a rest of five minutes after twenty-five", () => {
  it("is due when so much was played, with short pauses between", () => {
    let now = 0;
    let state = startOfPlay(now);
    for (let piece = 0; piece < 5; piece++) {
      expect(elapsed(state)).toBe(false);
      now += PLAY / 5;
      state = played(state, now);
      if (piece < 4) {
        now += REST / 2;
        state = rested(state, now);
      }
    }
    expect(elapsed(state)).toBe(true);
  });

  it("is over after five minutes without playing, and counts anew", () => {
    const due = played(startOfPlay(0), PLAY);
    const half = rested(due, PLAY + REST / 2);
    expect(elapsed(half)).toBe(true);
    const over = rested(half, PLAY + REST);
    expect(elapsed(over)).toBe(false);
    expect(played(over, PLAY + REST + 1000).playing).toBe(1000);
  });

  it("does not run backwards when a clock does", () => {
    expect(played(startOfPlay(5000), 1000).playing).toBe(0);
  });
});
