import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Drill } from "../../api/client";
import { comparedQuery, versionsQuery } from "../../api/queries";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { Key } from "../../ui/Key";
import type { Practice } from "./practice";

type Props = {
  drill: Drill;
  drillId: number;
  version: number;
  bpm: string;
  practice: Practice;
  onPractice: (practice: Practice) => void;
};

const NOTHING = { value: "", label: "nothing", why: "" };

/** What the drill is heard against: in one press, at the bar line, at the same tempo; and what differs, in words. */
export function CompareWords({ drill, drillId, version, bpm, practice, onPractice }: Props) {
  const [isOpen, setOpen] = useState(practice.against !== null);
  const others = useQuery({ ...comparedQuery(drill, bpm), enabled: isOpen });
  const versions = useQuery({ ...versionsQuery(drillId), enabled: isOpen });
  const { against } = practice;
  const earlier = versions.data?.versions.filter((one) => one.version !== version) ?? [];
  const choose = useMutation({
    mutationFn: async (value: string): Promise<Practice["against"]> => {
      const [kind, name = ""] = value.split(/:(.*)/s);
      if (kind !== "version") {
        const found = others.data?.others.find((one) => one.name === name);
        return found ? { ...found, isHeard: true } : null;
      }
      const kept = await api.drill(drillId, Number(name));
      const compared = await api.compare({ drill, other: kept.drill, bpm });
      const told = compared.others[0]?.told ?? [];
      return { name: `version ${name}`, drill: kept.drill, told, isHeard: true };
    },
    onSuccess: (against) => onPractice({ ...practice, against }),
  });
  if (!isOpen)
    return (
      <button type="button" className="button button-small" onClick={() => setOpen(true)}>
        Compare …
      </button>
    );
  const value = against
    ? /^version \d+$/.test(against.name)
      ? against.name.replace(" ", ":")
      : `other:${against.name}`
    : "";
  return (
    <>
      <span>compared with</span>
      <BriefSelect
        label="what it is compared with"
        field="against"
        value={value}
        choices={[
          NOTHING,
          ...(others.data?.others ?? []).map((one) => ({
            value: `other:${one.name}`,
            label: one.name,
            why: one.told.join(" "),
          })),
          ...earlier.map((one) => ({
            value: `version:${one.version}`,
            label: `as it was in version ${one.version}`,
            why: "",
          })),
        ]}
        onChange={(chosen) => choose.mutate(chosen)}
      />
      {against && (
        <>
          <button
            type="button"
            className="button button-small"
            aria-pressed={against.isHeard}
            onClick={() => onPractice({ ...practice, against: { ...against, isHeard: !against.isHeard } })}
          >
            {against.isHeard ? "Hear the drill again" : "Hear it so"} <Key name="C" />
          </button>
          <span className="basis-full text-soft" role="status">
            {against.name.replace(/^./, (first) => first.toUpperCase())}: {against.told.join(" ")} The tempo
            stays.
          </span>
        </>
      )}
      {(choose.error ?? others.error ?? versions.error) && (
        <span role="alert" className="text-error font-semibold basis-full">
          {(choose.error ?? others.error ?? versions.error)?.message}
        </span>
      )}
    </>
  );
}
