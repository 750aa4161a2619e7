// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Drill, Refusal } from "../../api/client";
import { PAGE } from "../../api/outbox";
import { DRILL } from "../../api/testValues";
import { useAutosave } from "./useAutosave";
import { useHistory } from "./useHistory";

const { saveDrill, drill } = vi.hoisted(() => ({ saveDrill: vi.fn(), drill: vi.fn() }));
vi.mock("../../api/client", async (original) => ({
  ...(await original<typeof import("../../api/client")>()),
  api: { saveDrill, drill },
}));

const changed = (title: string): Drill => ({ ...DRILL, title });
const lying = () =>
  Object.values({ ...localStorage }).map((text) => JSON.parse(text as string).body.drill.title);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  saveDrill.mockReset();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function bench() {
  return renderHook(({ now }: { now: Drill }) => useAutosave(5, now, { drill: DRILL, version: 1 }), {
    initialProps: { now: DRILL },
  });
}

const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
/** An answer that takes its time. */
const slow = (version: number, ms: number) => () =>
  new Promise((answered) => setTimeout(() => answered({ version }), ms));

describe("keeping a drill", () => {
  it("waits until it stands still, and keeps the last word only", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    expect(result.current.state.kind).toBe("saving");
    await later(300);
    rerender({ now: changed("AB") });
    await later(1000);
    expect(saveDrill).toHaveBeenCalledExactlyOnceWith(5, changed("AB"), 1, PAGE);
    expect(result.current.state).toEqual({ kind: "kept", version: 2 });
  });

  it("lies in the browser until the server has it", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const { rerender } = bench();
    rerender({ now: changed("A") });
    expect(lying()).toEqual(["A"]);
    await later(1000);
    expect(lying()).toEqual([]);
  });

  it("is no conflict with itself where an answer takes longer than the next change", async () => {
    saveDrill.mockImplementationOnce(slow(2, 2500)).mockImplementationOnce(slow(3, 2500));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(800);
    rerender({ now: changed("AB") });
    await later(1500);
    // Not beside the first, which is still on its way.
    expect(saveDrill).toHaveBeenCalledOnce();
    await later(1000);
    expect(saveDrill).toHaveBeenLastCalledWith(5, changed("AB"), 2, PAGE);
    expect(result.current.state.kind).toBe("saving");
    await later(3000);
    expect(result.current.state).toEqual({ kind: "kept", version: 3 });
    expect(lying()).toEqual([]);
  });

  it("tries again by itself while the server is lost", async () => {
    saveDrill.mockRejectedValueOnce(new Refusal("gone", null, 0)).mockResolvedValue({ version: 2 });
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(1000);
    expect(result.current.state.kind).toBe("lost");
    await later(5000);
    expect(result.current.state).toEqual({ kind: "kept", version: 2 });
  });

  it("says what was refused, does not try that again, and keeps it here", async () => {
    saveDrill.mockRejectedValue(new Refusal("A group has 2 to 64 notes, not 99.", "accents.size", 422));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(10_000);
    expect(saveDrill).toHaveBeenCalledOnce();
    expect(result.current.state).toMatchObject({
      kind: "refused",
      message: "A group has 2 to 64 notes, not 99.",
    });
    expect(lying()).toEqual(["A"]);
  });

  it("after a conflict keeps mine on top of theirs when asked", async () => {
    saveDrill.mockRejectedValueOnce(new Refusal("changed elsewhere", "based_on", 409));
    saveDrill.mockResolvedValue({ version: 4 });
    drill.mockResolvedValue({ version: 3 });
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(1000);
    expect(result.current.state.kind).toBe("conflict");
    await act(() => result.current.keepMine());
    expect(saveDrill).toHaveBeenLastCalledWith(5, changed("A"), 3, PAGE);
    expect(result.current.state).toEqual({ kind: "kept", version: 4 });
  });

  it("after a conflict takes theirs when asked, and then nothing of mine lies about", async () => {
    saveDrill.mockRejectedValue(new Refusal("changed elsewhere", "based_on", 409));
    const theirs = { id: 5, version: 3, drill: changed("Theirs") };
    drill.mockResolvedValue(theirs);
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(1000);
    await act(async () => rerender({ now: (await result.current.takeTheirs()) ?? DRILL }));
    await later(5000);
    expect(result.current.state).toEqual({ kind: "kept", version: 3 });
    expect(saveDrill).toHaveBeenCalledOnce();
    expect(lying()).toEqual([]);
  });

  it("lies here unsent until it is said whom it is for, and goes out once that is said", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const why = { climb: 7, why: "It is not said yet." };
    const { rerender, result } = renderHook(
      ({ now, asks }: { now: Drill; asks: typeof why | null }) =>
        useAutosave(5, now, { drill: DRILL, version: 1 }, asks),
      { initialProps: { now: DRILL, asks: why as typeof why | null } },
    );
    expect(result.current.state).toEqual({ kind: "kept", version: 1 });
    const mine = changed("A");
    rerender({ now: mine, asks: why });
    await later(10_000);
    expect(saveDrill).not.toHaveBeenCalled();
    expect(result.current.state).toEqual({ kind: "undecided", version: 1 });
    expect(await result.current.saveNow()).toBe(null);
    const [entry] = Object.values({ ...localStorage }).map((text) => JSON.parse(text as string));
    expect(entry).toMatchObject({ climb: 7, state: { is: "refused", why: why.why } });
    rerender({ now: mine, asks: null });
    await later(1000);
    expect(saveDrill).toHaveBeenCalledExactlyOnceWith(5, mine, 1, PAGE);
    expect(result.current.state).toEqual({ kind: "kept", version: 2 });
    expect(lying()).toEqual([]);
  });

  it("leaves nothing of what went somewhere else", async () => {
    const why = { climb: 7, why: "It is not said yet." };
    const { rerender, result } = renderHook(
      ({ now }: { now: Drill }) => useAutosave(5, now, { drill: DRILL, version: 1 }, why),
      { initialProps: { now: DRILL } },
    );
    rerender({ now: changed("A") });
    expect(lying()).toEqual(["A"]);
    act(() => result.current.drop());
    expect(lying()).toEqual([]);
  });

  it("leaves nothing behind of what was undone before it was sent", async () => {
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    expect(lying()).toEqual(["A"]);
    rerender({ now: DRILL });
    await later(10_000);
    expect(saveDrill).not.toHaveBeenCalled();
    expect(lying()).toEqual([]);
    expect(result.current.state).toEqual({ kind: "kept", version: 1 });
  });

  it("keeps what was undone while it was on its way as the next version", async () => {
    saveDrill.mockImplementationOnce(slow(2, 1000)).mockImplementationOnce(slow(3, 100));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(900);
    rerender({ now: DRILL });
    // The page is drawn anew at the end of each stretch.
    for (let stretch = 0; stretch < 4; stretch++) await later(1000);
    expect(saveDrill.mock.calls.map(([, drill, basedOn]) => [drill.title, basedOn])).toEqual([
      ["A", 1],
      ["Stairs", 2],
    ]);
    expect(result.current.state).toEqual({ kind: "kept", version: 3 });
    expect(lying()).toEqual([]);
  });

  it("says why theirs cannot be had", async () => {
    saveDrill.mockRejectedValue(new Refusal("changed elsewhere", "based_on", 409));
    drill.mockRejectedValue(new Refusal("The server does not answer.", null, 0));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(1000);
    await expect(act(() => result.current.takeTheirs())).resolves.toBeNull();
    expect(result.current.state).toMatchObject({ kind: "conflict", message: "The server does not answer." });
    expect(lying()).toEqual(["A"]);
  });

  it("saves at once for whoever needs the version, the newest along", async () => {
    saveDrill.mockImplementationOnce(slow(2, 500)).mockImplementationOnce(slow(3, 500));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(900);
    rerender({ now: changed("AB") });
    let version: number | null = 0;
    void result.current.saveNow().then((kept) => {
      version = kept;
    });
    await later(1200);
    expect(version).toBe(3);
  });

  it("hands on what a tool changed while it was saved, and nothing that was refused", async () => {
    saveDrill.mockImplementationOnce(slow(2, 500)).mockImplementationOnce(slow(3, 500));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    let version: number | null = 0;
    void result.current.saveNow().then((kept) => {
      version = kept;
    });
    await later(300);
    // The answer of a tool comes in the middle of it.
    rerender({ now: changed("A twice") });
    await later(1500);
    expect(version).toBe(3);
    expect(saveDrill).toHaveBeenLastCalledWith(5, changed("A twice"), 2, PAGE);
    saveDrill.mockRejectedValue(new Refusal("No.", null, 422));
    rerender({ now: changed("") });
    expect(await result.current.saveNow()).toBe(null);
  });
});

describe("undo and redo", () => {
  it("go back word by word, and typing in one word is one step", () => {
    const { result } = renderHook(() => useHistory(DRILL));
    const title = () => result.current.drill.title;
    act(() => result.current.change(changed("A"), "title"));
    act(() => result.current.change(changed("AB"), "title"));
    act(() => result.current.change({ ...changed("AB"), bpm: "90" }, "bpm"));
    act(() => result.current.undo());
    expect([title(), result.current.drill.bpm]).toEqual(["AB", "84"]);
    act(() => result.current.undo());
    expect([title(), result.current.canUndo]).toEqual(["Stairs", false]);
    act(() => result.current.redo());
    expect(title()).toBe("AB");
    act(() => result.current.change(changed("C"), "title"));
    expect(result.current.canRedo).toBe(false);
  });

  it("end at their ends", () => {
    const { result } = renderHook(() => useHistory(DRILL));
    act(() => result.current.undo());
    act(() => result.current.redo());
    expect(result.current.drill).toBe(DRILL);
  });
});
