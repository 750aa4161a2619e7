import type { LogFilter, Schemas } from "../../api/client";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { MARK_WORDS } from "../../ui/marks";

type Props = {
  filter: LogFilter;
  climbs: readonly Schemas["LogClimbShape"][];
  onChange: (filter: LogFilter) => void;
};

const SINCE = [
  { value: "", label: "from the beginning", why: "" },
  { value: "7", label: "of seven days", why: "" },
  { value: "30", label: "of thirty days", why: "" },
  { value: "90", label: "of ninety days", why: "" },
];
const BY = [
  { value: "", label: "whoever marked it", why: "" },
  { value: "teacher", label: "marked by the teacher", why: "" },
  { value: "student", label: "marked by the student", why: "" },
];

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

/** What of the log is shown, as a sentence. */
export function Filters({ filter, climbs, onChange }: Props) {
  const set = (changed: Partial<LogFilter>) => onChange({ ...filter, ...changed });
  return (
    <Brief label="What is shown" refusal={null}>
      <span className="text-base">
        Shown:{" "}
        <BriefSelect
          label="takes by mark"
          field="mark"
          value={filter.mark ?? ""}
          choices={[
            { value: "", label: "all takes", why: "" },
            ...Object.entries(MARK_WORDS).map(([value, label]) => ({
              value,
              label: label.toLowerCase(),
              why: "",
            })),
          ]}
          onChange={(mark) => set({ mark: (mark || null) as LogFilter["mark"] })}
        />{" "}
        of{" "}
        <BriefSelect
          label="drill"
          field="climb"
          value={String(filter.climb_id ?? "")}
          choices={[
            { value: "", label: "every drill", why: "" },
            ...climbs.map((one) => ({ value: String(one.id), label: one.title, why: "" })),
          ]}
          onChange={(id) => set({ climb_id: id ? Number(id) : null })}
        />
        ,{" "}
        <BriefSelect
          label="whose ear"
          field="by"
          value={filter.by ?? ""}
          choices={BY}
          onChange={(by) => set({ by: (by || null) as LogFilter["by"] })}
        />
        ,{" "}
        <BriefSelect
          label="since when"
          field="since"
          value={SINCE.find((one) => one.value && filter.since === daysAgo(Number(one.value)))?.value ?? ""}
          choices={SINCE}
          onChange={(days) => set({ since: days ? daysAgo(Number(days)) : null })}
        />
        .
      </span>
    </Brief>
  );
}
