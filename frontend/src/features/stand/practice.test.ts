import { describe, expect, it } from "vitest";
import type { Performance } from "../../api/client";
import { loopOf, loopsOf } from "./practice";

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
    expect(loopOf("bars 2 3")).toEqual({ kind: "bars", first: 2, last: 3 });
    expect(loopOf("seam 1")).toEqual({ kind: "seam", seam: 1 });
    expect(loopOf("bars 2 x")).toEqual({ kind: "bars", first: 2, last: 0 });
    expect(loopOf("whole")).toBeNull();
  });
});
