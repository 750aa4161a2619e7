// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Drill, Refusal } from "../../api/client";
import { DRILL } from "../../api/testValues";
import { draftOf } from "./drafts";
import { useAutosave } from "./useAutosave";
import { useHistory } from "./useHistory";

const { saveDrill, drill } = vi.hoisted(() => ({ saveDrill: vi.fn(), drill: vi.fn() }));
vi.mock("../../api/client", async (original) => ({
  ...(await original<typeof import("../../api/client")>()),
  api: { saveDrill, drill },
}));

const changed = (title: string): Drill => ({ ...DRILL, title });

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  saveDrill.mockReset();
});
afterEach(() => vi.useRealTimers());

function bench() {
  return renderHook(({ now }: { now: Drill }) => useAutosave(5, now, 1, DRILL), {
    initialProps: { now: DRILL },
  });
}

const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe("keeping a drill", () => {
  it("waits until it stands still, and keeps the last word only", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    expect(result.current.state.kind).toBe("saving");
    await later(300);
    rerender({ now: changed("AB") });
    await later(1000);
    expect(saveDrill).toHaveBeenCalledExactlyOnceWith(5, changed("AB"), 1);
    expect(result.current.state).toEqual({ kind: "kept", version: 2 });
  });

  it("lies in the browser until the server has it", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const { rerender } = bench();
    rerender({ now: changed("A") });
    expect(draftOf(5)).toEqual({ drill: changed("A"), basedOn: 1 });
    await later(1000);
    expect(draftOf(5)).toBeNull();
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

  it("says what was refused, and does not try that again", async () => {
    saveDrill.mockRejectedValue(new Refusal("A group has 2 to 64 notes, not 99.", "accents.size", 422));
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await later(10_000);
    expect(saveDrill).toHaveBeenCalledOnce();
    expect(result.current.state).toMatchObject({
      kind: "refused",
      message: "A group has 2 to 64 notes, not 99.",
    });
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
    expect(saveDrill).toHaveBeenLastCalledWith(5, changed("A"), 3);
    expect(result.current.state).toEqual({ kind: "kept", version: 4 });
  });

  it("saves at once for whoever needs the version", async () => {
    saveDrill.mockResolvedValue({ version: 2 });
    const { rerender, result } = bench();
    rerender({ now: changed("A") });
    await expect(act(() => result.current.saveNow())).resolves.toBe(2);
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
