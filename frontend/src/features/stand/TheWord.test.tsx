// @vitest-environment happy-dom
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, type Choices, type Judged, type Take } from "../../api/client";
import { queryClient } from "../../api/queries";
import { JUDGED } from "../../api/testValues";
import { TheWord } from "./TheWord";

const REMEDY = {
  key: "seam_loop",
  name: "Loop the change at 56",
  why: "The change alone.",
  against: "stumbles at a change, 3 → 4",
  bpm: "56",
  bpm_label: "56",
} as Take["remedies"][number];
const CHOICES = {
  faults: [
    { value: "seam", label: "stumbles at a change", why: "" },
    { value: "tempo", label: "rushes or drags", why: "" },
  ],
} as Choices;

function judged(take: Partial<Take>): Judged {
  return { ...JUDGED, take: { ...JUDGED.take, ...take } };
}

function draw(what: Judged, rung = 1) {
  const on = {
    onMoved: vi.fn(),
    onEar: vi.fn(),
    onRemedy: vi.fn(),
    onBack: vi.fn(),
    onAgain: vi.fn(),
    onRung: vi.fn(() => true),
  };
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>
        <TheWord judged={what} rung={rung} choices={CHOICES} large={false} busy={false} {...on} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return on;
}

const press = (name: string | RegExp) => userEvent.click(screen.getByRole("button", { name }));

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the word after a take", () => {
  it("shows the numbers that decided, and what the rule makes of them", () => {
    draw(JUDGED);
    expect(screen.getAllByRole("heading").map((one) => one.textContent)).toEqual(["Clean", "What was well"]);
    expect(screen.getByRole("button", { name: /^Up to 88/ })).toBeTruthy();
    expect(screen.getByText(/spread 9 ± 1 ms \(limit 16\)/)).toBeTruthy();
    expect(screen.getByText("Two clean takes in a row at 84.")).toBeTruthy();
  });

  it("says that a take on another rung does not move the climb", () => {
    draw(JUDGED, 2);
    expect(screen.getAllByRole("heading")[0]?.textContent).toBe("Clean");
    expect(screen.getByText(/The climb stands on rung 1; this take is kept/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /Up to/ })).toBeNull();
  });

  it("puts the first remedy on the stand in one press, at a tempo of one’s own if one is typed", async () => {
    const take = vi.spyOn(api, "takeRemedy").mockResolvedValue({ ...REMEDY, id: 4 } as never);
    const on = draw(judged({ mark: "shaky", machine: "shaky", remedies: [REMEDY] }));
    await userEvent.type(screen.getByLabelText("tempo of the remedy in bpm"), "60");
    await press(/^Loop the change at 56$/);
    expect(take.mock.calls[0]?.slice(0, 3)).toEqual(["take-0001", "seam_loop", "60"]);
    expect(on.onRemedy).toHaveBeenCalledWith({ ...REMEDY, id: 4 });
  });

  it("leaves a near take to the ear, in one press, with what was off", async () => {
    const on = draw(judged({ mark: "near", machine: "near", heading: "Too near to call", well: [] }));
    expect(screen.getByRole("heading").textContent).toBe("Too near to call");
    await userEvent.click(screen.getByText("Say more: ease, what was off"));
    await userEvent.click(screen.getByLabelText("rushes or drags"));
    await userEvent.selectOptions(screen.getByLabelText("ease"), "4");
    await press("Shaky, by ear");
    expect(on.onEar).toHaveBeenCalledWith({
      mark: "shaky",
      by: "teacher",
      ease: 4,
      talk: null,
      faults: ["tempo"],
    });
  });

  it("shows the machine’s word beside an ear that overruled it", () => {
    draw(judged({ mark: "clean", machine: "shaky", ear_by: "teacher" }));
    expect(screen.getByText(/The ear of the teacher counts; the machine said: shaky/)).toBeTruthy();
  });

  it("offers what fits where there is no verdict: the rung that was played, once more", async () => {
    const offer = { bpm: null, division: null, drill: null, passes: null };
    const on = draw(
      judged({
        mark: "none",
        machine: "none",
        reasons: ["This was played at 92, not at 84."],
        offers: [
          { ...offer, kind: "tempo", label: "Go to 92", bpm: "92" },
          { ...offer, kind: "again", label: "Play it again" },
        ],
      }),
    );
    await press("Go to 92");
    await press("Play it again");
    expect(on.onRung).toHaveBeenCalledWith("92");
    expect(on.onAgain).toHaveBeenCalledExactlyOnceWith(null);
  });

  it("plays as many passes as would settle what is too near, in one press", async () => {
    const offer = { bpm: null, division: null, drill: null };
    const on = draw(
      judged({
        mark: "near",
        machine: "near",
        says: ["Too near to call: uneven.", "A take of 5 passes would settle it."],
        offers: [{ ...offer, kind: "again", label: "Play 5 passes", passes: 5 }],
      }),
    );
    expect(screen.getByText("A take of 5 passes would settle it.")).toBeTruthy();
    await press("Play 5 passes");
    expect(on.onAgain).toHaveBeenCalledExactlyOnceWith(5);
  });

  it("leads back from a part to the rung", async () => {
    const on = draw(judged({ part_name: "the change 3 → 4", rung: null }));
    expect(screen.getByText(/Clean: rung 1 is offered again/)).toBeTruthy();
    await press("Back to rung 1");
    expect(on.onBack).toHaveBeenCalledOnce();
  });
});
