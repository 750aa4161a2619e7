import { describe, expect, it } from "vitest";
import type { Plan, Schemas } from "../../api/client";
import { startOf } from "./startOf";

const PLAN = { start: "72", target: { kind: "bpm", bpm: "120" } } as Plan;
const line = (bpm: string, target_bpm: string) => ({ bpm, target_bpm }) as Schemas["DrillLine"];
const SLOW = line("60", "120");
const QUICK = line("132", "160");

describe("where a climb starts", () => {
  it("is where its drill stands, and it leads above that", () => {
    expect(startOf(PLAN, QUICK)).toEqual({ start: "132", target: { kind: "bpm", bpm: "160" } });
  });

  it("goes along with another drill, unless someone chose otherwise", () => {
    const first = startOf(PLAN, SLOW);
    expect(startOf(first, QUICK, SLOW)).toEqual({ start: "132", target: { kind: "bpm", bpm: "160" } });
    const own = { ...first, start: "66" };
    expect(startOf(own, QUICK, SLOW)).toEqual({ start: "66", target: { kind: "bpm", bpm: "160" } });
    const led = { ...first, target: { kind: "bpm", bpm: "144" } } as Plan;
    expect(startOf(led, QUICK, SLOW)).toEqual({ start: "132", target: { kind: "bpm", bpm: "144" } });
  });

  it("leaves a target that is no tempo, and a plan without a drill", () => {
    const speed = { ...PLAN, target: { kind: "speed", nps: "8" } } as unknown as Plan;
    expect(startOf(speed, QUICK)).toEqual({ ...speed, start: "132" });
    expect(startOf(PLAN, undefined)).toBe(PLAN);
  });
});
