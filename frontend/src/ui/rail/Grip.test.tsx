// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { draw } from "../testRender";
import { Grips } from "./Grip";

afterEach(cleanup);

const C = {
  symbol: "C",
  frets: [null, 3, 2, 0, 1, 0],
  fingers: [0, 3, 2, 0, 1, 0],
  base: 1,
  words: "C: x32010",
};
const HIGH = {
  symbol: "D",
  frets: [null, 5, 7, 7, 7, 5],
  fingers: [0, 1, 2, 3, 4, 1],
  base: 5,
  words: "D: x57775",
};

describe("the grip of a chord", () => {
  it("shows fingers, open strings and those that do not sound", () => {
    const { container } = draw(<Grips grips={[C]} />);
    expect(screen.getByRole("img", { name: "C: x32010" })).toBeTruthy();
    expect(container.querySelectorAll("circle.fill-primary")).toHaveLength(3);
    expect(container.querySelectorAll("circle.fill-none")).toHaveLength(2);
    expect(screen.getAllByText("×")).toHaveLength(1);
  });

  it("names the fret at which a high one begins, and draws it within its five rows", () => {
    const { container } = draw(<Grips grips={[HIGH]} />);
    expect(screen.getByText("5")).toBeTruthy();
    const heights = [...container.querySelectorAll("circle.fill-primary")].map((dot) =>
      Number(dot.getAttribute("cy")),
    );
    expect(Math.max(...heights)).toBeLessThan(34 + 5 * 20);
    expect(Math.min(...heights)).toBeGreaterThan(34);
  });

  it("is pressed for another one, and says which it is now", async () => {
    const pressed = vi.fn();
    draw(<Grips grips={[C, HIGH]} onPress={pressed} />);
    await userEvent.click(screen.getAllByRole("button")[1] as HTMLElement);
    expect(pressed).toHaveBeenCalledExactlyOnceWith(1);
    expect(screen.getByRole("button", { name: "C: x32010 , another grip" })).toBeTruthy();
  });

  it("is nothing where no chord is gripped", () => {
    const { container } = draw(<Grips grips={[]} />);
    expect(container.querySelector("ul")).toBeNull();
  });
});
