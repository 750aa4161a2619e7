import { describe, expect, it } from "vitest";
import type { KeptRemedy, Performance } from "../../api/client";
import { ALL_OF_IT, loopOf, loopsOf, partOf, practiceOf } from "./practice";

const performance = (bars: number, seams: string[]) => ({ bars, seams }) as unknown as Performance;

describe("parts that go round", () => {
  it("are all of it, the seams and the bars", () => {
    const values = loopsOf(performance(3, ["the seam 1 to 2"])).map((one) => one.value);
    expect(values).toEqual(["whole", "seam 0", "bars"]);
  });

  it("are all of it alone where there is one bar", () => {
    expect(loopsOf(performance(1, []))).toHaveLength(1);
  });

  it("reach the server as it takes them", () => {
    expect(loopOf("bars 2 3")).toEqual({ bars: { first: 2, last: 3 }, seam: null });
    expect(loopOf("seam 1")).toEqual({ bars: null, seam: 1 });
    expect(loopOf("bars 2 x")).toEqual({ bars: { first: 2, last: 0 }, seam: null });
    expect(loopOf("whole")).toEqual({ bars: null, seam: null });
  });

  it("are a remedy’s own where one is practised, at its own tempo", () => {
    const remedy = { part: { seam: 0 }, bpm: "56" } as unknown as KeptRemedy;
    const practice = practiceOf(remedy);
    expect([partOf({ ...practice, part: "hand R" }), practice.bpm]).toEqual([{ seam: 0 }, "56"]);
    expect(partOf({ ...ALL_OF_IT, part: "hand R" }).reduce).toEqual({ part: "hand", hand: "R", beats: 1 });
  });
});
