import { expect, it } from "vitest";
import { DeadWatch } from "./deadWatch";

it("calls a microphone dead that gave something and gives nothing at all any more", () => {
  const watch = new DeadWatch(3);
  const looks = (...peaks: number[]) => peaks.map((peak) => watch.look(peak));
  expect(looks(0, 0, 0, 0)).toEqual([false, false, false, false]);
  expect(looks(0.001, 0, 0)).toEqual([false, false, false]);
  expect(looks(0.00001, 0, 0, 0, 0)).toEqual([false, false, false, true, true]);
  expect(looks(0.2, 0)).toEqual([false, false]);
});
