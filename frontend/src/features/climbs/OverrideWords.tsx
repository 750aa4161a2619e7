import { useQuery } from "@tanstack/react-query";
import { api, type Choices, type Overrides, type Plan, type Schemas } from "../../api/client";
import { AndMore } from "../../ui/brief/AndMore";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import type { Refused } from "../../ui/brief/context";

export type Turned = Schemas["SetBody"]["turned"];

export const AS_WRITTEN: Overrides = {
  octaves: null,
  key: "",
  place: 0,
  other_lead: false,
  click: null,
  counting: null,
  station: null,
  letter: 0,
  says: "",
  said_first: "",
  articulation: "",
  foot: "",
};

type Props = {
  overrides: Overrides;
  turned: string;
  choices: Choices;
  studentId: number;
  drillId: number;
  plan: Plan;
  refusal: Refused | null;
  onChange: (overrides: Overrides) => void;
  onTurned: (turned: string) => void;
};

/** What this student plays otherwise than the drill says, and whether it is turned through a list. */
export function OverrideWords(props: Props) {
  const { overrides, turned, choices, onChange, onTurned } = props;
  const set = (changed: Partial<Overrides>) => onChange({ ...overrides, ...changed });
  const offers = [
    { offer: "in another key", why: "Another tonic, the same steps.", start: { key: "G" } },
    { offer: "over other octaves", why: "Fewer or more than the drill has.", start: { octaves: 1 } },
    { offer: "with the other lead", why: "The other hand or direction first.", start: { other_lead: true } },
    {
      offer: "counted otherwise",
      why: "Other count words on the rail.",
      start: { counting: { system: "syllables" as const, own: "", runs: "bar" as const } },
    },
  ].filter((one) => !isUsed(overrides, one.start));
  return (
    <Brief label="What is played otherwise" refusal={props.refusal}>
      <p className="text-base">
        Played{" "}
        {Object.keys(AS_WRITTEN).some((name) => isUsed(overrides, { [name]: null })) ? "" : "as written"}
        {overrides.key && (
          <>
            in{" "}
            <BriefSelect
              label="key"
              field="overrides.key"
              value={overrides.key}
              choices={[{ value: "", label: "its own key", why: "" }, ...choices.tonics]}
              onChange={(key) => set({ key })}
            />{" "}
          </>
        )}
        {typeof overrides.octaves === "number" && (
          <>
            over{" "}
            <CountField
              label="octaves"
              field="overrides.octaves"
              value={overrides.octaves}
              hint="1 to 8."
              onChange={(octaves) => set({ octaves })}
            />{" "}
            octaves{" "}
          </>
        )}
        {overrides.other_lead && (
          <BriefSelect
            label="lead"
            field="overrides.other_lead"
            value="other"
            choices={[
              { value: "other", label: "with the other lead", why: "" },
              { value: "own", label: "with its own lead", why: "" },
            ]}
            onChange={(value) => set({ other_lead: value === "other" })}
          />
        )}
        {overrides.counting && (
          <>
            {" "}
            counted{" "}
            <BriefSelect
              label="count words"
              field="overrides.counting"
              value={overrides.counting.system}
              choices={[
                { value: "", label: "as written", why: "" },
                // Own words are the student’s: they are written under the details.
                ...choices.countings.filter(
                  (one) => one.value !== "own" || overrides.counting?.system === "own",
                ),
              ]}
              onChange={(system) =>
                set({
                  counting: system
                    ? {
                        system: system as NonNullable<Overrides["counting"]>["system"],
                        own: overrides.counting?.own ?? "",
                        runs: overrides.counting?.runs ?? "bar",
                      }
                    : null,
                })
              }
            />
          </>
        )}
        <AndMore label="what else is played otherwise" parts={offers} onChoose={(one) => set(one.start)} />,
        as{" "}
        <BriefSelect
          label="one climb, or a set of variants"
          field="turned"
          value={turned}
          choices={[
            { value: "", label: "one climb", why: "One tempo, one click." },
            ...choices.turned.map((one) => ({ ...one, label: `a set: ${one.label}` })),
          ]}
          onChange={onTurned}
        />
        .
      </p>
      {turned && <SetLook {...props} turned={turned as Turned} />}
    </Brief>
  );
}

const isUsed = (overrides: Overrides, part: Partial<Record<keyof Overrides, unknown>>) =>
  Object.keys(part).some((name) => {
    const field = name as keyof Overrides;
    return overrides[field] !== AS_WRITTEN[field];
  });

function SetLook({ turned, studentId, drillId, plan, overrides }: Props & { turned: Turned }) {
  const body = {
    student_id: studentId,
    drill_id: drillId,
    version: null,
    plan,
    turned,
    over: overrides,
    key: null,
  };
  const look = useQuery({ queryKey: ["set", body], queryFn: () => api.lookAtSet(body), retry: false });
  if (look.isError)
    return (
      <p role="alert" className="text-error text-base">
        {look.error.message}
      </p>
    );
  if (!look.data) return null;
  return (
    <div className="text-base leading-normal">
      <p>
        <strong>{look.data.sentence}</strong> Each keeps its own clean tempo and click:{" "}
        {look.data.names.join("; ")}.
      </p>
      {look.data.left_out.map((line) => (
        <p key={line} className="text-soft">
          Left out: {line}
        </p>
      ))}
    </div>
  );
}
