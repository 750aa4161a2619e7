import { beforeEach, describe, expect, it, vi } from "vitest";
import type { TakeBody } from "./client";

const addTake = vi.fn();
class Refusal extends Error {
  constructor(
    message: string,
    readonly isLost: boolean,
  ) {
    super(message);
  }
}
vi.mock("./client", () => ({ api: { addTake } }));
vi.mock("./queries", () => ({ forgetWork: () => {} }));

const kept = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
});

const take = (id: string) => ({ id, onsets: [0.1, 0.2] }) as TakeBody;

/** The outbox as a page finds it that has just been opened. */
async function opened() {
  vi.resetModules();
  return await import("./outbox");
}

beforeEach(() => {
  vi.useFakeTimers();
  kept.clear();
  addTake.mockReset();
});

describe("the outbox", () => {
  it("leaves nothing behind once the server has answered", async () => {
    const { sendTake } = await opened();
    addTake.mockResolvedValue({ take: {} });
    await sendTake(take("a"));
    expect(kept.size).toBe(0);
  });

  it("has a take before it is sent, so that a closed page loses none", async () => {
    const { sendTake } = await opened();
    addTake.mockImplementation(() => {
      expect(kept.get("ripresa.outbox")).toContain('"a"');
      return Promise.resolve({});
    });
    await sendTake(take("a"));
    expect(addTake).toHaveBeenCalledOnce();
  });

  it("keeps a take while the server is lost, and sends it again by itself", async () => {
    const { sendTake } = await opened();
    addTake.mockRejectedValueOnce(new Refusal("lost", true));
    await expect(sendTake(take("a"))).rejects.toThrow("lost");
    expect(kept.get("ripresa.outbox")).toContain('"a"');
    addTake.mockResolvedValue({});
    await vi.advanceTimersByTimeAsync(5000);
    expect(addTake).toHaveBeenCalledTimes(2);
    expect(kept.size).toBe(0);
  });

  it("sends what an earlier page left", async () => {
    kept.set("ripresa.outbox", JSON.stringify([take("old")]));
    addTake.mockResolvedValue({});
    await opened();
    await vi.advanceTimersByTimeAsync(1);
    expect(addTake).toHaveBeenCalledWith(expect.objectContaining({ id: "old" }));
  });

  it("lets a refused take go, because it would be refused for ever", async () => {
    const { sendTake } = await opened();
    addTake.mockRejectedValue(new Refusal("no such student", false));
    await expect(sendTake(take("a"))).rejects.toThrow("no such student");
    expect(kept.size).toBe(0);
  });
});
