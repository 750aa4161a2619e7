// @vitest-environment jsdom
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

  it("draws a bow to each slurred note", () => {
    const plain = row();
    const slurred = {
      ...plain,
      events: plain.events.map((one, index) => ({ ...one, slurred: index % 4 === 1 })),
    };
    const { container } = draw(<RailRow row={slurred} division="2" place={geometry([slurred], 4, 900)} />);
    expect(container.querySelectorAll("path[d*='Q']")).toHaveLength(2);
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
