// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { TakeTable } from "./TakeTable";
import { ThroughThePass } from "./ThroughThePass";
import { WhereInThePass } from "./WhereInThePass";
import { WhereItFell } from "./WhereItFell";

vi.mock("../../ui/useWidth", () => ({ useWidth: () => [{ current: null }, 600] }));

/** A take of one beat after the other, so many slots each, two seconds of it. */
function figures(slots: number, change: Partial<Schemas["FiguresShape"]> = {}): Schemas["FiguresShape"] {
  const numbers = Array.from({ length: slots }, (_, slot) => slot);
  return {
    due: slots * 4,
    matched: slots * 4,
    missed: 0,
    extra: 0,
    wrong: 0,
    bias: null,
    bias_note: "",
    spread: null,
    drift: null,
    drift_note: "too short to tell a drift",
    legs: [
      {
        division: String(slots),
        limit_ms: 20,
        spread: { label: "7 ms", plus_minus: "± 1", count: 40 },
        slots: numbers.map((slot) => ({
          slot,
          count: String(slot + 1),
          habit: { label: "+3 ms", plus_minus: "± 2", count: 10 },
          habit_words: "3 ms late",
          habit_ms: 3,
          share: "16.7 %",
          dots: [
            { ms: 4, event: 100 + slot, turn: 0 },
            { ms: -2, event: -1, turn: 0 },
          ],
        })),
      },
    ],
    seams: [],
    hands: [],
    accents: "",
    together: "",
    landings: [],
    places: [],
    furthest: "",
    line: numbers.map((slot) => ({ at: slot * 0.2, offset_ms: slot % 2, event: slot, turn: 0 })),
    marks: [],
    limit_ms: 20,
    ...change,
  };
}

afterEach(cleanup);

describe("the pictures of a take", () => {
  it.each([4, 6, 8, 13])("show all %d slots of a beat, the last one too", (slots) => {
    render(<WhereItFell figures={figures(slots)} onNote={() => {}} />);
    const fields = screen.getAllByRole("img");
    expect(fields).toHaveLength(slots);
    const wide = fields.reduce((sum, field) => sum + Number(field.getAttribute("width")), 0);
    expect(wide + 8 * (slots - 1)).toBeLessThanOrEqual(600);
  });

  it("lead from a dot to its note, and from a dot of old to none", async () => {
    const onNote = vi.fn();
    const { container } = render(<WhereItFell figures={figures(4)} onNote={onNote} />);
    for (const dot of container.querySelectorAll("circle")) await userEvent.click(dot);
    expect(onNote.mock.calls.map(([event]) => event)).toEqual([100, 101, 102, 103]);
  });

  it("break the line where a beat was lost, and name the places of changes", () => {
    const marks = [
      { at: 0.3, kind: "seam", label: "3 → 4", event: 2 },
      { at: 0.7, kind: "lost", label: "1.0 beats lost, bar 2 beat 1", event: 4 },
    ];
    const { container } = render(<ThroughThePass figures={figures(8, { marks })} onNote={() => {}} />);
    expect(container.querySelectorAll("polyline")).toHaveLength(2);
    expect(screen.getByText("3 → 4")).toBeTruthy();
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("1.0 beats lost, bar 2 beat 1");
  });

  it("say the same in a table that the keyboard reaches", async () => {
    const onNote = vi.fn();
    render(<TakeTable figures={figures(6)} onNote={onNote} />);
    await userEvent.click(screen.getByText("All of it in numbers"));
    expect(screen.getAllByRole("row")).toHaveLength(7);
    await userEvent.click(screen.getByRole("button", { name: "show “3”" }));
    expect(onNote).toHaveBeenCalledExactlyOnceWith(102);
  });
});

describe("where in the pass", () => {
  const place = {
    event: 11,
    name: "bar 2, beat 3, &",
    sentence: "110 ± 4 ms late, 4 times of 4",
    short: "110 late",
    beats: 0.17,
    reason: "where the thumb goes under",
    outside: true,
  };

  it("names the places that are off each time, why there, and leads to them", async () => {
    const onNote = vi.fn();
    const inside = { ...place, event: 3, name: "bar 1, beat 1", outside: false };
    render(
      <WhereInThePass
        figures={figures(4, { places: [place, inside], furthest: "+40 ± 5 ms from the click" })}
        onNote={onNote}
      />,
    );
    expect(screen.getAllByRole("listitem").map((one) => one.textContent)).toEqual([
      "bar 2, beat 3, & 110 ± 4 ms late, 4 times of 4 where the thumb goes under show it",
      "Furthest: +40 ± 5 ms from the click",
    ]);
    await userEvent.click(screen.getByRole("button", { name: "show it" }));
    expect(onNote).toHaveBeenCalledExactlyOnceWith(11);
  });

  it("is not there where nothing is off", () => {
    render(<WhereInThePass figures={figures(4)} onNote={null} />);
    expect(screen.queryByRole("heading")).toBeNull();
  });
});
