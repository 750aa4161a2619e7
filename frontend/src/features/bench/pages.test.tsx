// @vitest-environment happy-dom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { DRILL, row } from "../../api/testValues";
import { draw } from "../../ui/testRender";
import { AccentsAdded } from "./AccentsAdded";
import { LibraryPage } from "./LibraryPage";
import { ShelfPage } from "./ShelfPage";
import { Warnings } from "./Warnings";

const api = vi.hoisted(() => ({
  drills: vi.fn(),
  shelf: vi.fn(),
  archiveDrill: vi.fn(),
  takeFromShelf: vi.fn(),
  openDrillFile: vi.fn(),
}));
vi.mock("../../api/client", async (original) => ({
  ...(await original<typeof import("../../api/client")>()),
  api,
}));

const line = (id: number, title: string, material: string) => ({
  id,
  version: 1,
  title,
  material,
  divisions: "2 → 4 a beat",
  tempo: "♩ = 84",
  instrument: "guitar",
  tags: [],
  saved_at: "2026-05-06T15:00:00Z",
});
const ready = (key: string, aim: string, title: string, instrument = "guitar") => ({
  key,
  aim,
  what: `${title}, eighths`,
  family: instrument === "flute" ? "wind" : "strings",
  level: "first year",
  finds: "eighths quavers",
  title,
  purpose: `What ${title} is for.`,
  material: "one note",
  divisions: "4 a beat",
  tempo: "♩ = 72",
  length: "8 bars",
  instrument,
  row: row(),
});

beforeEach(() => {
  for (const one of Object.values(api)) one.mockReset();
});
afterEach(cleanup);

describe("the library", () => {
  const two = { drills: [line(1, "Harbour sixes", "F major"), line(2, "Ferry stairs", "G dorian")] };

  it("finds by any word, in any order", async () => {
    api.drills.mockResolvedValue(two);
    draw(<LibraryPage />);
    await userEvent.type(await screen.findByRole("searchbox"), "dorian stairs");
    expect(screen.getAllByRole("listitem")).toHaveLength(1);
    expect(screen.getByText("Ferry stairs")).toBeTruthy();
    await userEvent.type(screen.getByRole("searchbox"), " tuba");
    expect(screen.getByText("None with these words.")).toBeTruthy();
  });

  it("says what to do first where there is nothing", async () => {
    api.drills.mockResolvedValue({ drills: [] });
    draw(<LibraryPage />);
    expect(await screen.findByText(/Make the first one, take one from the shelf/)).toBeTruthy();
  });

  it("says what is wrong, and tries again when asked", async () => {
    api.drills.mockRejectedValueOnce(new Error("The server does not answer.")).mockResolvedValue(two);
    draw(<LibraryPage />);
    expect((await screen.findByRole("alert")).textContent).toContain("The server does not answer.");
    await userEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(await screen.findByText("Harbour sixes")).toBeTruthy();
  });

  it("puts a drill away", async () => {
    api.drills.mockResolvedValue(two);
    api.archiveDrill.mockResolvedValue({});
    draw(<LibraryPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Put away: Harbour sixes" }));
    expect(api.archiveDrill).toHaveBeenCalledExactlyOnceWith(1, true);
  });

  it("shows why a file was refused", async () => {
    api.drills.mockResolvedValue(two);
    api.openDrillFile.mockRejectedValue(new Error("This file is not JSON at line 1."));
    draw(<LibraryPage />);
    const file = new File(["{"], "drill.json", { type: "application/json" });
    await userEvent.upload(await screen.findByLabelText("A file to open"), file);
    expect((await screen.findByRole("alert")).textContent).toContain("not JSON at line 1");
  });
});

describe("the shelf", () => {
  beforeEach(() => {
    api.shelf.mockResolvedValue({
      aims: ["accents", "tonguing"],
      families: ["any instrument", "strings", "wind"],
      levels: ["first year", "further on"],
      drills: [ready("lighthouse", "accents", "Lighthouse"), ready("gulls", "tonguing", "Gulls", "flute")],
    });
  });

  it("stands in order of aims, and shows one of them when asked", async () => {
    draw(<ShelfPage />);
    const accents = await screen.findByRole("region", { name: "accents" });
    expect(within(accents).getByText("Lighthouse, eighths")).toBeTruthy();
    expect(within(accents).getByText("“Lighthouse”")).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText("For"), "tonguing");
    expect(screen.queryByRole("region", { name: "accents" })).toBeNull();
    expect(screen.getByText("1 of 2")).toBeTruthy();
  });

  it("shows those of a family, and of how far on someone is", async () => {
    draw(<ShelfPage />);
    await userEvent.selectOptions(await screen.findByLabelText("on"), "wind");
    expect(screen.queryByRole("region", { name: "accents" })).toBeNull();
    expect(screen.getByText("1 of 2")).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText("by"), "further on");
    expect(screen.getByText("0 of 2")).toBeTruthy();
  });

  it("finds by instrument and by what a drill is for", async () => {
    draw(<ShelfPage />);
    await userEvent.type(await screen.findByRole("searchbox"), "flute");
    expect(screen.getByText("1 of 2")).toBeTruthy();
    await userEvent.clear(screen.getByRole("searchbox"));
    await userEvent.type(screen.getByRole("searchbox"), "what lighthouse");
    expect(screen.getByRole("button", { name: "Take as a start: Lighthouse" })).toBeTruthy();
  });

  it("gives a copy away", async () => {
    api.takeFromShelf.mockResolvedValue({ id: 9, version: 1, drill: DRILL, saved_at: "" });
    draw(<ShelfPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Take as a start: Gulls" }));
    expect(api.takeFromShelf.mock.lastCall?.[0]).toBe("gulls");
  });
});

describe("typed accents beside those of the drill", () => {
  const sentence = "They add up: 6 in a pass, 2 of them typed.";

  it("are asked for once", async () => {
    const alone = vi.fn();
    const { unmount } = draw(<AccentsAdded id={5} sentence={sentence} onAlone={alone} />);
    await userEvent.click(screen.getByRole("button", { name: "Only those I typed" }));
    expect(alone).toHaveBeenCalledOnce();
    await userEvent.click(screen.getByRole("button", { name: "Both" }));
    expect(screen.queryByText(sentence)).toBe(null);
    unmount();
    const again = draw(<AccentsAdded id={5} sentence={sentence} onAlone={alone} />);
    expect(screen.queryByText(sentence)).toBe(null);
    again.unmount();
    // Another drill asks for itself; where nothing adds up, nothing is asked.
    draw(<AccentsAdded id={6} sentence={sentence} onAlone={alone} />);
    expect(screen.getByText(sentence)).toBeTruthy();
  });

  it("are not asked for where nothing adds up", () => {
    const { container } = draw(<AccentsAdded id={7} sentence="" onAlone={() => {}} />);
    expect(container.textContent).toBe("");
  });
});

describe("a drill out of range", () => {
  it("is mended in one press, with the same beats or with fewer octaves", async () => {
    const changed = vi.fn();
    const warning = { line: "notes", of: "range", sentence: "Out of range for guitar." } as const;
    draw(<Warnings warnings={[warning]} drill={DRILL} onChange={changed} />);
    await userEvent.click(screen.getByRole("button", { name: "Take one octave repeated" }));
    expect(changed).toHaveBeenLastCalledWith({
      ...DRILL,
      material: { ...DRILL.material, octaves: "one_repeated" },
    });
    await userEvent.click(screen.getByRole("button", { name: "Take one octave" }));
    expect(changed).toHaveBeenLastCalledWith({ ...DRILL, material: { ...DRILL.material, octaves: 1 } });
    await userEvent.click(screen.getByRole("button", { name: "Fold it into the range" }));
    expect(changed).toHaveBeenLastCalledWith({ ...DRILL, folded: true });
  });

  it("offers no mend of the range where a slur is told", () => {
    const warning = { line: "notes", of: "slur", sentence: "Bar 1: a hammer cannot fall." } as const;
    draw(<Warnings warnings={[warning]} drill={DRILL} onChange={() => {}} />);
    expect(screen.getByText("Bar 1: a hammer cannot fall.")).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("says nothing where there is nothing to say", () => {
    const { container } = draw(<Warnings warnings={[]} drill={DRILL} onChange={() => {}} />);
    expect(container.textContent).toBe("");
  });
});
