// @vitest-environment happy-dom
import { cleanup } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import kinds from "../../../kinds.json";
import type { Plan } from "../../api/client";
import { CHOICES } from "../../api/testValues";
import { draw } from "../../ui/testRender";
import { PlanBrief } from "./PlanBrief";

afterEach(cleanup);

describe("a refusal of a plan names a control that is on the screen", () => {
  it.each(kinds.plans.map((one) => [`${one.kind}: ${one.field}`, one] as const))(
    "%s",
    (_, { plan, field }) => {
      draw(
        <PlanBrief
          plan={plan as unknown as Plan}
          choices={CHOICES}
          sign="♩"
          students={[]}
          studentId={1}
          onStudent={() => {}}
          drills={[]}
          drillId={1}
          onDrill={() => {}}
          own={[]}
          rest=""
          refusal={{ message: "No.", field }}
          onChange={() => {}}
        />,
      );
      expect(document.querySelectorAll('[aria-invalid="true"]').length).toBeGreaterThan(0);
    },
  );
});
