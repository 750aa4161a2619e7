import { expect, test } from "vitest";
import { textOf } from "./textOf";

const wide = (text: string, isBig: boolean) =>
  new Blob([
    new Uint8Array(
      [...`\ufeff${text}`].flatMap((sign) => {
        const code = sign.charCodeAt(0);
        return isBig ? [code >> 8, code & 255] : [code & 255, code >> 8];
      }),
    ),
  ]);

test("a file is read in the writing that its first bytes name", async () => {
  expect(await textOf(wide("bpm,é", false))).toBe("bpm,é");
  expect(await textOf(wide("bpm,é", true))).toBe("bpm,é");
  expect(await textOf(new Blob(["\ufeffbpm,é"]))).toBe("bpm,é");
  expect(await textOf(new Blob([""]))).toBe("");
});
