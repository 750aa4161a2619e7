// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { row } from "../../api/testValues";
import { draw } from "../testRender";
import { geometry } from "./geometry";
import { RailRow } from "./RailRow";

afterEach(cleanup);

function drawn() {
  const place = geometry([row()], 4, 900);
  const { container } = draw(<RailRow row={row()} division="2" place={place} barLabel="bar 1" />);
  return { container, place };
}

describe("a row of the rail", () => {
  it("names a chord where it begins, above a rail that moves down for it", () => {
    const chords = ["C", "C", null, "G", "G", null, "C", "C"];
    const plain = row();
    const strummed = {
      ...plain,
      events: plain.events.map((event, index) => ({ ...event, chord: chords[index] ?? null })),
    };
    const place = geometry([strummed], 4, 900);
    const { container } = draw(<RailRow row={strummed} division="2" place={place} />);
    const named = [...container.querySelectorAll("svg > text")].map((node) => node.textContent);
    expect(named).toEqual(["C", "G", "C"]);
    expect(place.height).toBeGreaterThan(geometry([plain], 4, 900).height);
  });

  it("says all of it to someone who listens", () => {
    drawn();
    expect(screen.getByRole("img", { name: "2 a beat, bar 1: 1 D accent, & U" })).toBeTruthy();
  });

  it("draws where notes fell that were off again and again, to scale, and says it", () => {
    const { events, first } = row();
    const second = events[1] as (typeof events)[number];
    const off = new Map([
      [first + 1, { beats: 0.25, short: "110 late" }],
      [first + 2, { beats: -0.1, short: "44 early" }],
      [first + events.length, { beats: 0.2, short: "another bar" }],
    ]);
    const place = geometry([row()], 4, 900);
    const { container } = draw(<RailRow row={row()} division="2" place={place} off={off} />);
    const lines = [...container.querySelectorAll("path.stroke-error")].map((one) => one.getAttribute("d"));
    expect(lines).toHaveLength(2);
    expect(lines[0]).toBe(
      `M${place.x(second.x)} ${80 * place.scale}H${place.x(second.x) + 0.25 * place.beat}`,
    );
    expect(screen.getByText("110 late").getAttribute("text-anchor")).toBe("start");
    expect(screen.getByText("44 early").getAttribute("text-anchor")).toBe("end");
    expect(screen.queryByText("another bar")).toBeNull();
    const name = screen.getByRole("img").getAttribute("aria-label");
    expect(name).toMatch(/In ms: “&” 110 late, “[^”]+” 44 early$/);
  });

  it("draws one bow over a slur, however many notes it has, and one to each hammered note", () => {
    const plain = row();
    const events = plain.events.map((one, index) => ({ ...one, slurred: [1, 2, 4].includes(index) }));
    const slurred = { ...plain, events };
    const { container } = draw(<RailRow row={slurred} division="2" place={geometry([slurred], 4, 900)} />);
    expect(container.querySelectorAll("path[d*='Q']")).toHaveLength(2);
    cleanup();
    const hammered = {
      ...plain,
      events: events.map((one) => ({ ...one, ornament: one.slurred ? "h" : null })),
    };
    const other = draw(<RailRow row={hammered} division="2" place={geometry([hammered], 4, 900)} />);
    expect(other.container.querySelectorAll("path[d*='Q']")).toHaveLength(3);
    expect(screen.getAllByText("h")).toHaveLength(3);
  });

  it("hangs the left hand under the line, and joins what both strike", () => {
    const right = row();
    const other = right.events
      .filter((event) => event.kind === "note")
      .map((event, index) => ({ ...event, x: index ? event.x + 0.25 : 0, accent: "plain" as const }));
    const both = { ...right, other, other_first: 90 };
    const place = geometry([both], 4, 900);
    const { container } = draw(<RailRow row={both} division="2" left="2" place={place} />);
    expect(place.height).toBeGreaterThan(geometry([right], 4, 900).height);
    expect(screen.getByRole("img", { name: /^2 a beat against 2, bar 1/ })).toBeTruthy();
    const feet = (event: number) =>
      [...container.querySelectorAll(`[data-event="${event}"] line`)].map((line) =>
        Number(line.getAttribute("y1")),
      );
    // Where both strike the pegs meet on the line; elsewhere they stand a little off it.
    expect([...feet(40), ...feet(90)]).toEqual([80, 80]);
    expect([...feet(41), ...feet(91)]).toEqual([77, 83]);
    const heads = [...container.querySelectorAll("[data-event='91'] line")].map((line) =>
      Number(line.getAttribute("y2")),
    );
    expect(heads[0]).toBeGreaterThan(80);
  });

  it("says the word of the left hand only where it strikes alone", () => {
    const right = row();
    const [first, second] = right.events;
    if (!first || !second) throw new Error("a row has notes");
    const other = [
      { ...first, count: "left 1" },
      { ...second, x: 0.25, count: "left e", kind: "note" as const },
    ];
    draw(
      <RailRow row={{ ...right, other, other_first: 90 }} division="2" place={geometry([right], 4, 900)} />,
    );
    expect(screen.queryByText("left 1")).toBeNull();
    expect(screen.getByText("left e")).toBeTruthy();
  });

  it("puts fingers on their strings, and a sign on what is damped", () => {
    const plain = row();
    const events = plain.events.map((event, index) => ({
      ...event,
      stroke: index ? event.stroke : "p",
      dead: index === 1,
      strings: index > 1 ? [] : [{ string: 5 - index, fret: 0, finger: index ? "" : "p" }],
    }));
    const picked = { ...plain, events };
    const place = geometry([picked], 4, 900, { strings: 6 });
    const { container } = draw(<RailRow row={picked} division="2" place={place} />);
    expect(container.querySelectorAll(".rail-string")).toHaveLength(6);
    // The finger stands on its string, and not under the peg as well.
    expect(screen.getAllByText("p")).toHaveLength(1);
    expect(screen.getByText("×")).toBeTruthy();
    const y = [...container.querySelectorAll("circle.string-dot, circle.string-dead")].map((dot) =>
      dot.getAttribute("cy"),
    );
    expect(y).toEqual([5, 4].map((string) => String(place.stringsY + (string - 1) * place.stringStep)));
  });

  it("marks each event by its number in the reading, so that it can be lit", () => {
    const { container } = drawn();
    const numbers = [...container.querySelectorAll("[data-event]")].map((node) =>
      node.getAttribute("data-event"),
    );
    expect(numbers).toEqual(["40", "41", "42", "43", "44", "45", "46", "47"]);
  });

  it("tells accents, ghosts, holds and air strokes by their shape", () => {
    const { container } = drawn();
    expect(container.querySelectorAll(".peg-head")).toHaveLength(1);
    expect(container.querySelectorAll(".peg-held")).toHaveLength(1);
    expect(container.querySelectorAll(".peg-silent")).toHaveLength(1);
    const widths = [...container.querySelectorAll("line.peg:not(.peg-held)")].map((node) =>
      Number(node.getAttribute("stroke-width")),
    );
    expect(widths.filter((width) => width < 4)).toHaveLength(1);
    // The held slot and the silent one are strokes in the air.
    expect(container.querySelectorAll("path.fill-none.stroke-soft")).toHaveLength(2);
  });

  it("puts pegs exactly where they sound", () => {
    const { container, place } = drawn();
    const words = [...container.querySelectorAll("[data-event] text")].map((node) =>
      Number(node.getAttribute("x")),
    );
    expect(words.slice(0, 4)).toEqual([0, 0.5, 1, 1.5].map(place.x));
  });
});
