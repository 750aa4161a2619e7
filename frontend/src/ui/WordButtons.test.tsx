// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { CLIMB, tread } from "../api/testValues";
import { Staircase } from "./Staircase";
import { draw } from "./testRender";
import { WordButtons } from "./WordButtons";

const move = vi.hoisted(() => vi.fn());
vi.mock("../api/client", async (original) => ({
  ...(await original<typeof import("../api/client")>()),
  api: { move },
}));

beforeEach(() => {
  move.mockReset();
});
afterEach(cleanup);

describe("the word", () => {
  it("is followed in one press, with the take that led to it", async () => {
    const moved = vi.fn();
    move.mockResolvedValue({ ...CLIMB, rung: 2 });
    draw(<WordButtons climb={CLIMB} takeId="take-0001" follow="Up to 88" onMoved={moved} />);
    await userEvent.click(screen.getByRole("button", { name: "Up to 88" }));
    expect(move).toHaveBeenCalledExactlyOnceWith(7, {
      decision: "up",
      from_rung: 1,
      take_id: "take-0001",
      reason: "",
      key: expect.any(String),
    });
    await vi.waitFor(() => expect(moved).toHaveBeenCalledOnce());
  });

  it("is overruled with a reason", async () => {
    move.mockResolvedValue(CLIMB);
    draw(<WordButtons climb={CLIMB} takeId={null} follow="Up to 88" />);
    await userEvent.click(screen.getByText("Overrule it, with a reason"));
    await userEvent.type(screen.getByLabelText("The reason, kept with it"), "tired");
    await userEvent.click(screen.getByRole("button", { name: "Go back all the same" }));
    expect(move).toHaveBeenCalledWith(7, {
      decision: "back",
      from_rung: 1,
      take_id: null,
      reason: "tired",
      key: expect.any(String),
    });
  });

  it("says what is wrong when it cannot be done", async () => {
    move.mockRejectedValue(new Error("This climb is already on rung 2."));
    draw(<WordButtons climb={CLIMB} takeId={null} follow="Up to 88" />);
    await userEvent.click(screen.getByRole("button", { name: "Stay here" }));
    expect((await screen.findByRole("alert")).textContent).toContain("already on rung 2");
  });

  it("carries one key for a press that is repeated because its answer was lost, and a new one for the next", async () => {
    move.mockRejectedValueOnce(new Error("The server does not answer.")).mockResolvedValue(CLIMB);
    draw(<WordButtons climb={CLIMB} takeId={null} follow="Up to 88" />);
    const stay = screen.getByRole("button", { name: "Stay here" });
    for (let press = 0; press < 3; press++) await userEvent.click(stay);
    const [first, again, next] = move.mock.calls.map(([, body]) => body.key);
    expect(again).toBe(first);
    expect(next).not.toBe(first);
  });
});

describe("the small staircase", () => {
  it("is a picture with a name, a tread for each rung", () => {
    const treads = [tread(1, "done"), tread(2, "now"), tread(3, "target")];
    const { container } = draw(<Staircase treads={treads} label="Rung 2 of 3" />);
    expect(screen.getByRole("img", { name: "Rung 2 of 3" })).toBeTruthy();
    expect(container.querySelectorAll(".tread-now")).toHaveLength(1);
    expect(container.querySelectorAll("rect")).toHaveLength(3);
  });
});
