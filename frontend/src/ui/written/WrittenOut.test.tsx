// @vitest-environment happy-dom
import { act, cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRef } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { CHOICES, DRILL } from "../../api/testValues";
import { draw } from "../testRender";
import type { WrittenHandle } from "./Engraved";
import { WrittenOut } from "./WrittenOut";

const api = vi.hoisted(() => ({ choices: vi.fn(), lies: vi.fn(), written: vi.fn() }));
vi.mock("../../api/client", async (original) => ({
  ...(await original<typeof import("../../api/client")>()),
  api,
}));
vi.mock("../useWidth", () => ({ useWidth: () => [{ current: null }, 900] }));

const STAVES = [
  { value: "notes", label: "notes", why: "" },
  { value: "tab", label: "TAB", why: "" },
  { value: "both", label: "notes and TAB", why: "" },
];
const PICTURE = '<svg xmlns="http://www.w3.org/2000/svg"><g id="e0-1-0-0"/><g id="e1-1-5-0"/></svg>';

beforeEach(() => {
  localStorage.clear();
  api.choices.mockResolvedValue({
    ...CHOICES,
    staves: STAVES,
    instruments: [{ value: "guitar", label: "guitar", why: "", strings: 6, breathes: false, cycles: [] }],
  });
  api.lies.mockResolvedValue({
    forms: ["notes", "tab", "both"],
    strings: 6,
    necks: [],
    keys: null,
    names: [],
  });
  api.written.mockResolvedValue({ picture: PICTURE, drawn_as: { "8": 0 }, words: "bar 1: 1 C4." });
});
afterEach(cleanup);

async function choose(name: string): Promise<void> {
  await screen.findByRole("option", { name });
  await userEvent.selectOptions(screen.getByLabelText("Written out:"), name);
}

describe("a drill written out", () => {
  const drill = { ...DRILL, instrument: "guitar" };

  it("is off, and nothing is asked for, until someone wants it", async () => {
    draw(<WrittenOut drill={drill} />);
    expect(await screen.findByRole("option", { name: "notes and TAB" })).toBeTruthy();
    expect(api.written).not.toHaveBeenCalled();
    expect(api.lies).not.toHaveBeenCalled();
  });

  it("says in words what it draws, and stays as it was left", async () => {
    const { unmount } = draw(<WrittenOut drill={drill} />);
    await choose("notes and TAB");
    expect(await screen.findByText("bar 1: 1 C4.")).toBeTruthy();
    expect(api.written.mock.calls[0]?.[0]).toMatchObject({ form: "both", width: 900 });
    unmount();
    draw(<WrittenOut drill={drill} />);
    await waitFor(() => expect(screen.getByLabelText<HTMLSelectElement>("Written out:").value).toBe("both"));
  });

  it("lights what is drawn for the note that sounds, also behind a repeat sign", async () => {
    const handle = createRef<WrittenHandle>();
    draw(<WrittenOut drill={drill} ref={handle} />);
    await choose("notes");
    await screen.findByText("bar 1: 1 C4.");
    const lit = () => [...document.querySelectorAll(".note-lit")].map((node) => node.id);
    act(() => handle.current?.light([1]));
    expect(lit()).toEqual(["e1-1-5-0"]);
    act(() => handle.current?.light([8]));
    expect(lit()).toEqual(["e0-1-0-0"]);
    act(() => handle.current?.light([-1, -1]));
    expect(lit()).toEqual([]);
  });

  it("shows what the server refuses, and the words to choose otherwise", async () => {
    api.written.mockRejectedValue(new Error("Up to 3,000 notes and rests are written out."));
    draw(<WrittenOut drill={drill} />);
    await choose("notes");
    expect((await screen.findByRole("alert")).textContent).toContain("Up to 3,000");
    expect(screen.getByLabelText("Written out:")).toBeTruthy();
  });
});
