// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import kinds from "../../../kinds.json";
import type { Drill } from "../../api/client";
import { CHOICES, DRILL } from "../../api/testValues";
import { draw } from "../../ui/testRender";
import { DrillBrief } from "./DrillBrief";

const amount = vi.hoisted(() => vi.fn());
vi.mock("../../api/client", async (original) => ({
  ...(await original<typeof import("../../api/client")>()),
  api: { amount },
}));

afterEach(cleanup);

/** What the server says of a drill, as far as its brief asks. */
function read({ material }: Drill) {
  const brings = ["count", "cells", "strum", "long_notes"].includes(material.kind);
  return {
    sign: "♩",
    own_rhythm: brings || (material.kind === "line" && material.rhythm === "own"),
    has_closing: material.kind === "scale_run" || material.kind === "arpeggio",
    warnings: [],
    division_names: { "2": "eighths", "3": "triplets", "4": "sixteenths" },
  };
}

/** The brief as it stands on the bench: what is changed comes back into it. */
function Bench({ start, seen }: { start: Drill; seen: (drill: Drill) => void }) {
  const [drill, setDrill] = useState(start);
  return (
    <DrillBrief
      drill={drill}
      choices={CHOICES}
      reading={read(drill)}
      refusal={null}
      onChange={(next) => {
        setDrill(next);
        seen(next);
      }}
    />
  );
}

function opened(start: Drill = DRILL) {
  const seen = vi.fn<(drill: Drill) => void>();
  draw(<Bench start={start} seen={seen} />);
  return { user: userEvent.setup(), last: () => seen.mock.lastCall?.[0], seen };
}

/** What "and more …" offers. */
async function offeredMore(user: ReturnType<typeof userEvent.setup>): Promise<string[]> {
  await user.click(screen.getByRole("button", { name: /^and more/ }));
  return screen.getAllByRole("listitem").map((one) => one.querySelector("strong")?.textContent ?? "");
}

/** Find something among what else there is, by typing. */
async function more(user: ReturnType<typeof userEvent.setup>, name: string) {
  await user.click(screen.getByRole("button", { name: /^and more/ }));
  await user.type(screen.getByLabelText("find what else there is"), `${name}{Enter}`);
}

describe("the brief of a drill", () => {
  it("changes the scale and leaves the rest", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("scale"), "dorian");
    expect(last()).toEqual({ ...DRILL, material: { ...DRILL.material, scale: "dorian" } });
  });

  it("takes octaves as a number or by name", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("octaves"), "match");
    expect(last()?.material).toMatchObject({ octaves: "match" });
    await user.selectOptions(screen.getByLabelText("octaves"), "1");
    expect(last()?.material).toMatchObject({ octaves: 1 });
  });

  it("brings the tonic along to another kind of material", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("tonic"), "Eb");
    await user.selectOptions(screen.getByLabelText("material"), "arpeggio");
    expect(last()?.material).toMatchObject({ kind: "arpeggio", tonic: "Eb" });
    await more(user, "last note");
    expect(screen.getByLabelText("closing tonic")).toBeTruthy();
    await user.selectOptions(screen.getByLabelText("material"), "one_note");
    expect(screen.queryByLabelText("closing tonic")).toBeNull();
  });

  it("says why one would choose the word in hand", async () => {
    const { user } = opened();
    await user.click(screen.getByLabelText("shape"));
    expect(screen.getByText(/comes back to where it started/)).toBeTruthy();
  });

  it("takes a hand cycle of one's own, symbol by symbol", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("hands"), "own");
    const field = screen.getByLabelText("your own hand cycle");
    await user.clear(field);
    await user.type(field, "R L R R");
    expect(last()?.hands).toEqual({ kind: "by_order", cycle: ["R", "L", "R", "R"], restart: "never" });
  });

  it("takes a meter of one's own, and keeps to it", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("meter"), "own");
    const field = screen.getByLabelText("your own meter");
    await user.clear(field);
    await user.type(field, "4/4 | 7/8 (2+2+3)");
    expect(last()?.meter).toBe("4/4 | 7/8 (2+2+3)");
    await user.selectOptions(screen.getByLabelText("meter"), "3/4");
    expect(last()?.meter).toBe("3/4");
    expect(screen.queryByLabelText("your own meter")).toBeNull();
  });

  it("lets the arm swing", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("hands"), "by_place");
    await user.selectOptions(screen.getByLabelText("way on the beat"), "up");
    expect(last()?.hands).toEqual({ kind: "by_place", lead: "up", odd: "through" });
  });

  it("refuses an accent sign that is none, at its place, and keeps what was typed", async () => {
    const { user, seen } = opened();
    await user.selectOptions(screen.getByLabelText("accents"), "typed");
    const field = screen.getByLabelText("accent pattern");
    await user.clear(field);
    await user.type(field, "> x");
    expect(screen.getByRole("alert").textContent).toContain("Sign 2, “x”, is not one of");
    expect((field as HTMLInputElement).value).toBe("> x");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    const kept = seen.mock.lastCall?.[0].accents;
    expect(kept).toMatchObject({ kind: "typed", cycle: ["accent"] });
  });

  it("sends a count that is no number as one that the server refuses", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("accents"), "every_nth");
    const field = screen.getByLabelText("notes in a group");
    await user.clear(field);
    await user.type(field, "five");
    expect(last()?.accents).toEqual({ kind: "every_nth", size: 0, restart: "leg" });
    expect((field as HTMLInputElement).value).toBe("five");
  });

  it("plays a typed rhythm so many times instead of stepping through divisions", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("material"), "count");
    expect(screen.queryByLabelText(/^divisions/)).toBeNull();
    await user.selectOptions(screen.getByLabelText("times"), "4");
    expect(last()?.legs).toHaveLength(4);
  });

  it("strums with a swinging arm, a pattern taken ready or typed", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("material"), "strum");
    expect(last()?.hands).toMatchObject({ kind: "by_place", lead: "down" });
    expect(screen.queryByLabelText(/^divisions/)).toBeNull();
    await user.selectOptions(screen.getByLabelText("ready pattern"), "quarters");
    expect(last()?.material).toMatchObject({ pattern: "1 2 3 4" });
    const chords = screen.getByLabelText("chords", { exact: true });
    await user.clear(chords);
    await user.type(chords, "G D{Enter}");
    expect(last()?.material).toMatchObject({ chords: "G D", pattern: "1 2 3 4" });
  });

  it("asks which pairs swing once they do", async () => {
    const { user, last } = opened();
    expect(screen.queryByLabelText("swing")).toBeNull();
    await more(user, "swing");
    await user.selectOptions(screen.getByLabelText("which pairs swing"), "4");
    expect(last()?.swing).toEqual({ ratio: "2", on: 4 });
  });

  it("adds a rare part by “and …”, and drops it again", async () => {
    const { user, last } = opened();
    await more(user, "fingering");
    expect(last()?.fingering).toBe("usual");
    await user.selectOptions(screen.getByLabelText("fingering"), "none");
    expect(last()?.fingering).toBe("none");
    expect(screen.queryByLabelText("fingering")).toBeNull();
  });

  it("offers a breath to wind alone, and the usual strokes of the instrument first", async () => {
    const offered = (label: string) =>
      [...(screen.getByLabelText(label) as HTMLSelectElement).options].map((option) => option.text);
    expect(await offeredMore(opened({ ...DRILL, instrument: "guitar" }).user)).not.toContain("a breath");
    cleanup();
    expect(await offeredMore(opened({ ...DRILL, instrument: "flute" }).user)).toContain("a breath");
    const hands = offered("hands");
    expect(hands.indexOf("Double tonguing (T K)")).toBeLessThan(hands.indexOf("Alternate picking (D U)"));
  });

  it("lets the left hand play, in divisions of its own, and takes its steps along when it rests", async () => {
    const { user, last } = opened({ ...DRILL, instrument: "piano" });
    expect(screen.queryByLabelText("what the left hand plays")).toBeNull();
    await more(user, "the left hand");
    expect(last()?.second.plays).toEqual({ kind: "parallel", interval: "octave" });
    await user.selectOptions(screen.getByLabelText("what the left hand plays"), "contrary");
    await user.selectOptions(screen.getByLabelText("where the left hand begins"), "octave");
    await user.selectOptions(screen.getByLabelText("rhythm of the left hand"), "own");
    await user.selectOptions(screen.getByLabelText("loudness of the left hand"), "softer");
    await user.type(screen.getByLabelText("words for both hands together"), "to-ge-ther now");
    expect(last()?.second).toMatchObject({
      plays: { kind: "contrary", start: "octave" },
      legs: [{ division: "2", following: [] }],
      balance: "softer",
      phrase: "to-ge-ther now",
    });
    await more(user, "a way in");
    await user.selectOptions(screen.getByLabelText("way in"), "hands");
    expect(last()?.way_in).toContain("left");
    await user.selectOptions(screen.getByLabelText("what the left hand plays"), "none");
    expect(last()?.second).toMatchObject({ plays: { kind: "none" }, legs: [], phrase: "" });
    expect(last()?.way_in).toEqual(["listen", "whole"]);
  });

  it("offers two hands on keys alone, and a first year where one is known", async () => {
    const ofGuitar = await offeredMore(opened({ ...DRILL, instrument: "guitar" }).user);
    expect(ofGuitar).not.toContain("the left hand");
    expect(ofGuitar).not.toContain("the range of a first year");
    cleanup();
    const ofPiano = await offeredMore(opened({ ...DRILL, instrument: "piano" }).user);
    expect(ofPiano).toContain("the left hand");
    expect(ofPiano).toContain("the range of a first year");
  });

  it("says only what differs from the usual, and the rest once it is asked for", async () => {
    const { user, last } = opened();
    const seldom = ["degree it starts on", "turn-round", "closing tonic", "seam: what happens between legs"];
    for (const name of seldom) expect(screen.queryByLabelText(name)).toBeNull();
    await more(user, "start note");
    expect(screen.queryByLabelText("turn-round")).toBeNull();
    await user.selectOptions(screen.getByLabelText("degree it starts on"), "3");
    expect(last()?.material).toMatchObject({ start: 3 });
    cleanup();
    const other = { ...DRILL, seam: "straight_on", closing: "own" } as Drill;
    opened({ ...other, material: { ...DRILL.material, start: 2, top: "twice" } as Drill["material"] });
    for (const name of seldom) expect(screen.getByLabelText(name)).toBeTruthy();
  });

  it("calls divisions by their names", () => {
    opened({ ...DRILL, legs: ["2", "7"].map((division) => ({ division, following: [] })) });
    expect(screen.getByLabelText(/^divisions/).textContent).toBe("eighths → 7 a beat");
  });

  it("finds nothing under a word that it does not have, and says so", async () => {
    const { user } = opened();
    await user.click(screen.getByRole("button", { name: /^and more/ }));
    await user.type(screen.getByLabelText("find what else there is"), "trombone{Enter}");
    expect(screen.getByText(/Nothing is called “trombone” here/)).toBeTruthy();
    await user.keyboard("{Escape}");
    expect(screen.queryByLabelText("find what else there is")).toBeNull();
  });

  it("picks chords by fingers, and says no other hand", async () => {
    const { user, last } = opened({ ...DRILL, instrument: "guitar" });
    await user.selectOptions(screen.getByLabelText("material"), "picked");
    expect(screen.queryByLabelText("hands")).toBeNull();
    await user.selectOptions(screen.getByLabelText("ready picking pattern"), "p i m i");
    await user.selectOptions(screen.getByLabelText("strings of the thumb"), "root");
    await user.selectOptions(screen.getByLabelText("when the pattern begins again"), "never");
    await user.type(screen.getByLabelText("rhythm of the pattern"), "1 & 2");
    expect(last()?.material).toMatchObject({
      kind: "picked",
      pattern: "p i m i",
      bass: "root",
      again: "never",
      rhythm: "1 & 2",
    });
  });

  it("puts the four fingers in an order, and slurs some of them", async () => {
    const { user, last } = opened({ ...DRILL, instrument: "guitar" });
    await user.selectOptions(screen.getByLabelText("material"), "finger_order");
    expect((screen.getByLabelText("finger order") as HTMLSelectElement).options).toHaveLength(25);
    await user.selectOptions(screen.getByLabelText("finger order"), "4 3 2 1");
    await user.selectOptions(screen.getByLabelText("way across the strings"), "skip");
    expect(screen.queryByLabelText("string")).toBeNull();
    const shift = screen.getByLabelText("frets to move on");
    await user.clear(shift);
    await user.type(shift, "-1");
    expect(last()?.material).toMatchObject({ shift: -1 });
    await user.selectOptions(screen.getByLabelText("slurs of the left hand"), "hammer_pull");
    const slurred = screen.getByLabelText("notes that are slurred");
    await user.clear(slurred);
    await user.type(slurred, "2 3");
    expect(last()?.material).toMatchObject({
      order: "4 3 2 1",
      path: "skip",
      legato: "hammer_pull",
      slurred: [2, 3],
    });
  });

  it("builds a strum step by step, and mixes two patterns bar by bar", async () => {
    const { user, last } = opened({ ...DRILL, instrument: "guitar" });
    await user.selectOptions(screen.getByLabelText("material"), "strum");
    await user.selectOptions(screen.getByLabelText("step of the pattern"), "2");
    await user.selectOptions(screen.getByLabelText("second pattern, bar by bar"), "1 2 3 4");
    expect(last()?.material).toMatchObject({ pattern: "1 2 & (3) & 4 & | 1 2 3 4", step: 2 });
    await user.selectOptions(screen.getByLabelText("second pattern, bar by bar"), "");
    expect(last()?.material).toMatchObject({ pattern: "1 2 & (3) & 4 &" });
  });

  it("tongues and slurs by a pattern", async () => {
    const { user, last } = opened({ ...DRILL, instrument: "clarinet" });
    await user.selectOptions(screen.getByLabelText("hands"), "articulated");
    await user.selectOptions(screen.getByLabelText("articulation pattern"), "fours");
    await user.selectOptions(screen.getByLabelText("restart of the pattern"), "bar");
    expect(last()?.hands).toEqual({ kind: "articulated", pattern: "fours", restart: "bar" });
  });

  it("types a line, and takes it through chords", async () => {
    const { user, last } = opened();
    await user.selectOptions(screen.getByLabelText("material"), "line");
    await user.clear(screen.getByLabelText("notes of the line"));
    await user.type(screen.getByLabelText("notes of the line"), "E4 b3");
    await user.selectOptions(screen.getByLabelText("chords it goes through"), "yes");
    expect(last()?.material).toMatchObject({ kind: "line", text: "E4 b3", through: "C | F | G | C" });
    await user.selectOptions(screen.getByLabelText("chords it goes through"), "no");
    await user.selectOptions(screen.getByLabelText("rhythm of the line"), "own");
    expect(last()?.material).toMatchObject({ rhythm: "own", through: "" });
    expect(screen.getByLabelText("times")).toBeTruthy();
  });

  it("loses none of two numbers that the server reads in one moment", async () => {
    const answers: ((amount: object) => void)[] = [];
    amount.mockImplementation(() => new Promise((answer) => answers.push(answer)));
    const { user, last } = opened({ ...DRILL, breath: "10" });
    await user.type(screen.getByLabelText("tempo in bpm"), "0");
    await user.type(screen.getByLabelText("seconds of a breath"), "2");
    const [tempo, breath] = answers.slice(-2);
    tempo?.({ exact: "840", label: "840" });
    breath?.({ exact: "102", label: "102" });
    await vi.waitFor(() => expect(last()).toMatchObject({ bpm: "840", breath: "102" }));
  });

  it("has the server read a tempo that is no whole number, and shows its refusal", async () => {
    const { user, last } = opened();
    amount.mockImplementation((text: string) =>
      text === "90½"
        ? Promise.resolve({ exact: "181/2", label: "90½" })
        : Promise.reject(new Error(`“${text}” is no tempo.`)),
    );
    const field = screen.getByLabelText("tempo in bpm");
    await user.clear(field);
    expect((await screen.findByRole("alert")).textContent).toBe("“” is no tempo.");
    await user.type(field, "90½");
    await vi.waitFor(() => expect(last()?.bpm).toBe("181/2"));
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("takes a whole number as it stands, without asking anyone", async () => {
    const { user, last } = opened();
    amount.mockClear();
    const field = screen.getByLabelText("tempo in bpm");
    await user.type(field, "{Backspace}9");
    await vi.waitFor(() => expect(last()?.bpm).toMatch(/9$/));
    expect(amount).not.toHaveBeenCalled();
  });
});

describe("a tempo that is answered late", () => {
  it("does not undo what was changed meanwhile", async () => {
    const { user, last } = opened();
    let reply = (_amount: { exact: string; label: string }) => {};
    amount.mockImplementation(() => new Promise((resolve) => (reply = resolve)));
    const field = screen.getByLabelText("tempo in bpm");
    await user.clear(field);
    await user.type(field, "½");
    await user.selectOptions(screen.getByLabelText("scale"), "dorian");
    reply({ exact: "9", label: "9" });
    await vi.waitFor(() => expect(last()?.bpm).toBe("9"));
    expect(last()?.material).toMatchObject({ scale: "dorian" });
  });
});

describe("the divisions", () => {
  async function panel() {
    const opening = opened();
    await opening.user.click(screen.getByLabelText(/^divisions/));
    return opening;
  }

  it("are added, taken away and turned back", async () => {
    const { user, last } = await panel();
    const written = () =>
      last()
        ?.legs.map((leg) => leg.division)
        .join(" ");
    await user.click(screen.getByLabelText("Add a leg with 3 a beat"));
    expect(written()).toBe("2 4 3");
    await user.click(screen.getByText("And back again"));
    expect(written()).toBe("2 4 3 4 2");
    await user.click(screen.getByText("Take the last away"));
    expect(written()).toBe("2 4 3 4");
  });

  it("are one all through in one press, and another takes the place of each", async () => {
    const { user, last } = await panel();
    const legs = () => last()?.legs.map((leg) => [leg.division, ...(leg.following ?? [])].join("+"));
    await user.selectOptions(screen.getByLabelText("leg 2"), "3");
    expect(legs()).toEqual(["2", "3"]);
    await user.click(screen.getByLabelText("All through with 4 a beat"));
    expect(legs()).toEqual(["4"]);
    const field = screen.getByLabelText(/^Or write them in order/);
    await user.clear(field);
    await user.type(field, "6+5 2");
    // What is not offered stands there as it is written, until something takes its place.
    expect((screen.getByLabelText("leg 1") as HTMLSelectElement).selectedOptions[0]?.text).toBe("6+5");
    await user.selectOptions(screen.getByLabelText("leg 1"), "8");
    expect(legs()).toEqual(["8", "2"]);
  });

  it.each([
    ["½ 3", [["1/2"], ["3"]]],
    ["6+5", [["6", "5"]]],
    ["3:2 4", [["3/2"], ["4"]]],
  ])("are read from “%s”", async (text, legs) => {
    const { user, last } = await panel();
    const field = screen.getByLabelText(/^Or write them in order/);
    await user.clear(field);
    await user.type(field, text);
    expect(last()?.legs.map((leg) => [leg.division, ...leg.following])).toEqual(legs);
  });

  it("refuse a word that is none, and close with Escape", async () => {
    const { user } = await panel();
    await user.type(screen.getByLabelText(/^Or write them in order/), " quick");
    expect(screen.getByRole("alert").textContent).toContain("“quick” is not a division");
    await user.keyboard("{Escape}");
    expect(screen.queryByLabelText(/^Or write them in order/)).toBeNull();
    expect(document.activeElement).toBe(screen.getByLabelText(/^divisions/));
  });
});

describe("a refusal names a control that is on the screen", () => {
  it.each(kinds.drills.map((one) => [`${one.kind}: ${one.field}`, one] as const))(
    "%s",
    (_, { drill, field }) => {
      const asked = drill as unknown as Drill;
      draw(
        <DrillBrief
          drill={asked}
          choices={CHOICES}
          reading={read(asked)}
          refusal={{ message: "No.", field }}
          onChange={() => {}}
        />,
      );
      const blamed = document.querySelectorAll('[aria-invalid="true"]');
      expect(blamed.length).toBeGreaterThan(0);
      expect(blamed[0]?.getAttribute("aria-describedby")).toBe(screen.getByRole("alert").id);
    },
  );
});
