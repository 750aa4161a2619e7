// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Drill, TakeBody } from "../client";
import { DRILL } from "../testValues";

const { addTake, saveDrill, drill } = vi.hoisted(() => ({
  addTake: vi.fn(),
  saveDrill: vi.fn(),
  drill: vi.fn(),
}));
vi.mock("../client", async (original) => ({
  ...(await original<typeof import("../client")>()),
  api: { addTake, saveDrill, drill },
}));
vi.mock("../queries", () => ({ forgetWork: () => {}, noteSaved: () => {} }));

const take = (id: string) =>
  ({ id, bpm: "84", onsets: [0.1, 0.2], played_at: "2026-05-06T15:00:00Z" }) as TakeBody;
const titled = (title: string): Drill => ({ ...DRILL, title });

/** The outbox as a page finds it that has just been opened, and the refusals that it knows. */
async function opened(studio = "own", begins = true) {
  // The page that was open before is closed.
  vi.clearAllTimers();
  document.documentElement.dataset.studio = studio;
  vi.resetModules();
  const outbox = await import("./index");
  const { Refusal } = await import("../client");
  const { entries } = await import("./entries");
  if (begins) outbox.openOutbox();
  const lost = () => new Refusal("The server does not answer.", null, 0);
  return { ...outbox, Refusal, entries, lost };
}

const stored = () => Object.keys(localStorage);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  for (const one of [addTake, saveDrill, drill]) one.mockReset();
});
afterEach(() => vi.useRealTimers());

describe("a take on its way", () => {
  it("lies here before it is sent, under the id of its studio, and leaves when the server has answered", async () => {
    const { sendTake } = await opened();
    addTake.mockImplementation(() => {
      expect(stored()).toEqual(["ripresa.own.out.a"]);
      return Promise.resolve({});
    });
    await sendTake(take("a"));
    expect(stored()).toEqual([]);
  });

  it("stays while the server is lost, and is sent by itself, less and less often", async () => {
    const { sendTake, lost, pause } = await opened();
    addTake.mockRejectedValue(lost());
    await expect(sendTake(take("a"))).rejects.toThrow("does not answer");
    await vi.advanceTimersByTimeAsync(70_000);
    expect(addTake.mock.calls.length).toBeLessThan(8);
    expect([0, 1, 9].map(pause)).toEqual([4000, 8000, 60_000]);
    addTake.mockResolvedValue({});
    await vi.advanceTimersByTimeAsync(61_000);
    expect(stored()).toEqual([]);
  });

  it("is sent at once when the computer is back on the network", async () => {
    const { sendTake, lost } = await opened();
    addTake.mockRejectedValueOnce(lost()).mockResolvedValue({});
    await expect(sendTake(take("a"))).rejects.toThrow();
    window.dispatchEvent(new Event("online"));
    await vi.advanceTimersByTimeAsync(1);
    expect(stored()).toEqual([]);
  });

  it("stays, with its reason, when it is refused, and goes when someone sends it again", async () => {
    const { sendTake, sendAgain, entries, Refusal } = await opened();
    addTake.mockRejectedValue(new Refusal("This climb is another student’s.", "climb_id", 422));
    await expect(sendTake(take("a"))).rejects.toThrow("another student’s");
    await vi.advanceTimersByTimeAsync(300_000);
    expect(addTake).toHaveBeenCalledOnce();
    const [entry] = entries();
    expect(entry?.state).toEqual({ is: "refused", status: 422, why: "This climb is another student’s." });
    addTake.mockResolvedValue({});
    if (entry) sendAgain(entry);
    await vi.advanceTimersByTimeAsync(1);
    expect(stored()).toEqual([]);
  });

  it("is tried five times where the server fails, and for ever where it only cannot keep anything now", async () => {
    const { sendTake, entries, Refusal } = await opened();
    addTake.mockRejectedValue(new Refusal("Something went wrong.", null, 500));
    await expect(sendTake(take("a"))).rejects.toThrow();
    await vi.advanceTimersByTimeAsync(600_000);
    expect(addTake).toHaveBeenCalledTimes(5);
    expect(entries()[0]?.state.why).toBe("The server failed on it 5 times. Something went wrong.");
    addTake.mockReset();
    addTake.mockRejectedValue(new Refusal("The disk is full.", null, 503));
    await expect(sendTake(take("b"))).rejects.toThrow();
    await vi.advanceTimersByTimeAsync(600_000);
    expect(addTake.mock.calls.length).toBeGreaterThan(6);
  });

  it("is not overwritten by what another tab puts in", async () => {
    const { sendTake, lost, entries } = await opened();
    addTake.mockRejectedValue(lost());
    await expect(sendTake(take("mine"))).rejects.toThrow();
    // The other tab keeps its own key.
    const theirs = { ...JSON.parse(localStorage.getItem("ripresa.own.out.mine") ?? ""), id: "theirs" };
    localStorage.setItem("ripresa.own.out.theirs", JSON.stringify(theirs));
    window.dispatchEvent(new StorageEvent("storage"));
    await expect(sendTake(take("second"))).rejects.toThrow();
    expect(
      entries()
        .map((one) => one.id)
        .sort(),
    ).toEqual(["mine", "second", "theirs"]);
  });

  it("of another studio waits for it, and is shown", async () => {
    const demo = await opened("demo");
    addTake.mockRejectedValue(demo.lost());
    await expect(demo.sendTake(take("demo-take"))).rejects.toThrow();
    addTake.mockReset();
    const own = await opened("own");
    await vi.advanceTimersByTimeAsync(120_000);
    expect(addTake).not.toHaveBeenCalled();
    expect(own.entries()).toMatchObject([{ id: "demo-take", studio: "demo" }]);
  });

  it("stays when a server of another studio answers", async () => {
    const { sendTake, entries, Refusal } = await opened();
    const { noteAnotherStudio } = await import("../studio");
    addTake.mockImplementation(() => {
      noteAnotherStudio();
      return Promise.reject(new Refusal("This page belongs to another studio.", "studio", 409));
    });
    await expect(sendTake(take("a"))).rejects.toThrow("another studio");
    await vi.advanceTimersByTimeAsync(120_000);
    expect(addTake).toHaveBeenCalledOnce();
    expect(entries()[0]?.state.is).toBe("waiting");
  });

  it("is kept in the page where the browser has no room, and that is known", async () => {
    const { sendTake, entries, isUnkept, lost } = await opened();
    const full = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
    const room = new Proxy(localStorage, {
      get(storage, name) {
        const own: unknown = Reflect.get(storage, name);
        if (name === "setItem") return full;
        return typeof own === "function" ? own.bind(storage) : own;
      },
    });
    vi.stubGlobal("localStorage", room);
    addTake.mockRejectedValueOnce(lost()).mockResolvedValue({});
    await expect(sendTake(take("a"))).rejects.toThrow();
    const [entry] = entries();
    expect(entry && isUnkept(entry)).toBe(true);
    await vi.advanceTimersByTimeAsync(5000);
    expect(addTake).toHaveBeenCalledTimes(2);
    vi.unstubAllGlobals();
  });
});

describe("what an earlier page left", () => {
  it("is sent, one thing at a time", async () => {
    const first = await opened();
    addTake.mockRejectedValue(first.lost());
    for (const id of ["a", "b"]) await expect(first.sendTake(take(id))).rejects.toThrow();
    addTake.mockReset();
    let running = 0;
    addTake.mockImplementation(async () => {
      expect(++running).toBe(1);
      await new Promise((done) => setTimeout(done, 100));
      running -= 1;
      return {};
    });
    await opened();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(stored()).toEqual([]);
  });

  it("from before studios had ids is shown, and sent when someone says that it is meant for this one", async () => {
    localStorage.setItem("ripresa.outbox", JSON.stringify([take("old")]));
    localStorage.setItem("ripresa.draft.5", JSON.stringify({ drill: titled("Old"), basedOn: 3 }));
    const { entries, sendAgain } = await opened();
    await vi.advanceTimersByTimeAsync(10_000);
    expect([addTake, saveDrill].map((one) => one.mock.calls.length)).toEqual([0, 0]);
    expect(entries().map((one) => [one.kind, one.state.is])).toEqual([
      ["take", "refused"],
      ["draft", "refused"],
    ]);
    addTake.mockResolvedValue({});
    saveDrill.mockResolvedValue({ version: 4 });
    for (const one of entries()) sendAgain(one);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(saveDrill).toHaveBeenCalledExactlyOnceWith(5, titled("Old"), 3, "");
    expect(stored()).toEqual([]);
  });
});

describe("a change of a drill", () => {
  it("is sent by the page that works on it, and by any page once nobody does", async () => {
    const { holdDraft, putDraft } = await opened();
    saveDrill.mockResolvedValue({ version: 2 });
    const letGo = holdDraft(5);
    putDraft(5, titled("A"), 1, "page-0001");
    await vi.advanceTimersByTimeAsync(120_000);
    expect(saveDrill).not.toHaveBeenCalled();
    letGo();
    await vi.advanceTimersByTimeAsync(1);
    expect(saveDrill).toHaveBeenCalledExactlyOnceWith(5, titled("A"), 1, "page-0001");
    expect(stored()).toEqual([]);
  });

  it("is taken up again by the page that opens the drill", async () => {
    const first = await opened();
    first.holdDraft(5);
    first.putDraft(5, titled("Half"), 1, first.PAGE);
    const second = await opened("own", false);
    const draft = await second.adoptDraft(5);
    expect(draft?.body).toEqual({ drill_id: 5, drill: titled("Half"), based_on: 1, writer: first.PAGE });
    expect(stored()).toEqual([`ripresa.own.out.5-${second.PAGE}`]);
    expect(await second.adoptDraft(6)).toBeNull();
  });

  it("in conflict stays until someone keeps it as the newest, on top of theirs", async () => {
    const { putDraft, keepAsNewest, entries, Refusal, openOutbox } = await opened();
    saveDrill
      .mockRejectedValueOnce(new Refusal("changed elsewhere", "based_on", 409))
      .mockResolvedValue({ version: 4 });
    putDraft(5, titled("Mine"), 1, "page-0001");
    openOutbox();
    await vi.advanceTimersByTimeAsync(60_000);
    const [entry] = entries();
    expect(entry?.state).toMatchObject({ is: "refused", status: 409 });
    drill.mockResolvedValue({ version: 3 });
    if (entry?.kind === "draft") await keepAsNewest(entry);
    await vi.advanceTimersByTimeAsync(1);
    expect(saveDrill).toHaveBeenLastCalledWith(5, titled("Mine"), 3, "page-0001");
    expect(stored()).toEqual([]);
  });
});
