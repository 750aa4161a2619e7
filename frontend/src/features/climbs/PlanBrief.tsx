import type { Choice, Choices, Plan } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import type { Refused } from "../../ui/brief/context";
import { planHints } from "../../ui/brief/kinds";
import { LimitWords } from "./LimitWords";
import { MovingWords } from "./MovingWords";
import { RuleWords } from "./RuleWords";
import { isWithoutSpeed, TargetWords } from "./TargetWords";

type Props = {
  plan: Plan;
  choices: Choices;
  sign: string;
  students: Choice[];
  studentId: number;
  onStudent: (id: number) => void;
  drills: Choice[];
  drillId: number;
  onDrill: (id: number) => void;
  refusal: Refused | null;
  /** The click ladder that is the student's own, if there is one. */
  own: Plan["clicks"];
  /** How it rises and moves, in words: what the drill, the student and the level say. */
  rest: string;
  onChange: (plan: Plan) => void;
};

/** A climb as one sentence; its words are the controls. */
export function PlanBrief(props: Props) {
  const { plan, choices, onChange } = props;
  const set = <F extends keyof Plan>(field: F, value: Plan[F]) => onChange({ ...plan, [field]: value });
  const ladders = laddersOf(props);
  return (
    <Brief label="The brief of the climb" refusal={props.refusal} hints={planHints(plan, choices)}>
      <BriefSelect
        label="student"
        field="student"
        value={String(props.studentId)}
        choices={props.students}
        onChange={(id) => props.onStudent(Number(id))}
      />{" "}
      climbs with{" "}
      <BriefSelect
        label="drill"
        field="drill"
        value={String(props.drillId)}
        choices={props.drills}
        onChange={(id) => props.onDrill(Number(id))}
      />{" "}
      from{" "}
      <AmountField
        label="start tempo in bpm"
        field="start"
        what="bpm"
        before={`${props.sign} = `}
        exact={plan.start}
        hint="The fastest tempo without a mistake."
        onChange={(start) => set("start", start)}
      />{" "}
      to <TargetWords plan={plan} choices={choices} onChange={onChange} />.
      <details className="more-words">
        <summary>
          and more … <span className="font-normal text-soft">{props.rest}</span>
        </summary>
        {!isWithoutSpeed(plan) && (
          <>
            It rises <RuleWords plan={plan} choices={choices} onChange={onChange} />.{" "}
          </>
        )}
        It moves by <MovingWords plan={plan} choices={choices} onChange={onChange} />, in{" "}
        <BriefSelect
          label="settings of the metronome"
          field="settings"
          value={plan.settings}
          choices={choices.settings}
          onChange={(settings) => set("settings", settings as Plan["settings"])}
        />
        ,{" "}
        <LimitWords limits={plan} choices={choices} onChange={(limits) => onChange({ ...plan, ...limits })} />
        , the click{" "}
        <BriefSelect
          label="click ladder"
          field="clicks"
          value={ladders.find((one) => sameClicks(one.plans, plan.clicks))?.value ?? CHANGED}
          choices={ladders}
          onChange={(key) => set("clicks", ladders.find((one) => one.value === key)?.plans ?? plan.clicks)}
        />
        {plan.clicks.length > 0 && (
          <>
            {" "}
            <BriefSelect
              label="order of the clicks"
              field="click_order"
              value={plan.click_order}
              choices={choices.click_orders}
              onChange={(order) => set("click_order", order as Plan["click_order"])}
            />
          </>
        )}
        . Begin with the plan for{" "}
        <BriefSelect
          label="ready plan by level"
          field="preset"
          value=""
          choices={[
            { value: "", label: "…", why: "Steps, limits and the moving rule that go together." },
            ...choices.presets,
          ]}
          onChange={(key) => {
            const found = choices.presets.find((one) => one.value === key);
            if (!found) return;
            const { rule, moving, clean_to_rise, shaky_to_fall, evenness } = found;
            onChange({ ...plan, rule, moving, clean_to_rise, shaky_to_fall, evenness });
          }}
        />
        .
      </details>
    </Brief>
  );
}

const CHANGED = "changed";

/** Ladders to choose from, the student's own among them; what was changed by hand is one more. */
function laddersOf({ plan, choices, own }: Pick<Props, "plan" | "choices" | "own">) {
  const known = [
    { value: "none", label: "as in the drill", why: "The same on every rung.", plans: [] as Plan["clicks"] },
    ...(own.length > 0
      ? [{ value: "own", label: "the student’s own", why: "As it is kept for this student.", plans: own }]
      : []),
    ...choices.click_ladders,
  ];
  return known.some((one) => sameClicks(one.plans, plan.clicks))
    ? known
    : [
        ...known,
        { value: CHANGED, label: "as you changed it", why: "Plan by plan, below.", plans: plan.clicks },
      ];
}

const sameClicks = (some: Plan["clicks"], others: Plan["clicks"]) =>
  JSON.stringify(some) === JSON.stringify(others);
