import type { Choice, Choices, Plan } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import type { Refused } from "../../ui/brief/context";
import { planHints } from "../../ui/brief/kinds";
import { LimitWords } from "./LimitWords";

const counted = (from: number, to: number): Choice[] =>
  Array.from({ length: to - from + 1 }, (_, index) => ({
    value: String(from + index),
    label: String(from + index),
    why: "",
  }));

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
      to <TargetWords plan={plan} choices={choices} onChange={onChange} />, rising{" "}
      <AmountField
        label="size of a step"
        field="rule.step"
        what="number"
        exact={plan.rule.step}
        onChange={(step) => set("rule", { ...plan.rule, step })}
      />{" "}
      <BriefSelect
        label="rule for steps"
        field="rule.kind"
        value={plan.rule.kind}
        choices={choices.rules}
        onChange={(kind) => {
          const fresh = choices.rules.find((one) => one.value === kind)?.fresh;
          if (fresh) set("rule", { ...fresh, step: plan.rule.step });
        }}
      />{" "}
      a step, after{" "}
      <BriefSelect
        label="clean takes in a row that lead up"
        field="clean_to_rise"
        value={String(plan.clean_to_rise)}
        choices={counted(1, 9)}
        onChange={(count) => set("clean_to_rise", Number(count))}
      />{" "}
      clean {plan.clean_to_rise === 1 ? "take" : "takes in a row"}, back one after{" "}
      <BriefSelect
        label="shaky takes in a row that lead back"
        field="shaky_to_fall"
        value={String(plan.shaky_to_fall)}
        choices={counted(2, 9)}
        onChange={(count) => set("shaky_to_fall", Number(count))}
      />{" "}
      shaky, in{" "}
      <BriefSelect
        label="settings of the metronome"
        field="settings"
        value={plan.settings}
        choices={choices.settings}
        onChange={(settings) => set("settings", settings as Plan["settings"])}
      />
      , <LimitWords limits={plan} choices={choices} onChange={(limits) => onChange({ ...plan, ...limits })} />
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
      .
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

type TargetProps = Pick<Props, "plan" | "choices" | "onChange">;

function TargetWords({ plan, choices, onChange }: TargetProps) {
  const { target } = plan;
  return (
    <>
      <BriefSelect
        label="kind of target"
        field="target.kind"
        value={target.kind}
        choices={choices.targets}
        onChange={(kind) => {
          const fresh = choices.targets.find((one) => one.value === kind)?.fresh;
          if (fresh) onChange({ ...plan, target: fresh });
        }}
      />{" "}
      {target.kind === "bpm" ? (
        <>
          <AmountField
            label="target tempo in bpm"
            field="target"
            what="bpm"
            exact={target.bpm}
            onChange={(bpm) => onChange({ ...plan, target: { ...target, bpm } })}
          />{" "}
          bpm
        </>
      ) : (
        <>
          <AmountField
            label="target speed in notes a second"
            field="target"
            what="number"
            exact={target.nps}
            onChange={(nps) => onChange({ ...plan, target: { ...target, nps } })}
          />{" "}
          notes a second, where it is fastest
        </>
      )}
    </>
  );
}
