import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, files, type PracticePlan, type StudentPage } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Brief } from "../../ui/brief/Brief";
import { BriefField } from "../../ui/brief/BriefField";
import { CountField } from "../../ui/brief/CountField";
import { listed } from "../../ui/brief/listed";
import { refusalOf } from "../../ui/refusal";

/** The plan of practice as a sentence; its words are the controls, and a changed one is kept by a press. */
export function PlanWords({ page }: { page: StudentPage }) {
  const { student, plan: shown } = page;
  const kept = shown?.plan ?? null;
  const [plan, setPlan] = useState(kept);
  const save = useMutation({
    mutationFn: (wanted: PracticePlan | null) => api.keepPlan(student.id, wanted, student.revision),
    onSuccess: (_, wanted) => {
      setPlan(wanted);
      forgetWork();
    },
  });
  if (!plan)
    return (
      <div className="card-plain mb-4 flex flex-wrap items-center gap-3 no-print">
        <p className="flex-1 min-w-60">
          No plan yet: minutes on so many days a week, spread anew when a day is missed.
        </p>
        <button type="button" className="button" onClick={() => setPlan(page.fresh_plan)}>
          Plan the practice
        </button>
      </div>
    );
  const set = (changed: Partial<PracticePlan>) => setPlan({ ...plan, ...changed });
  const isChanged = JSON.stringify(plan) !== JSON.stringify(kept);
  return (
    <div className="mb-3">
      <Brief label="The plan of practice" refusal={refusalOf(save.error)}>
        Practises{" "}
        <CountField
          label="minutes a day"
          field="minutes"
          value={plan.minutes}
          hint="1 to 600."
          onChange={(minutes) => set({ minutes })}
        />{" "}
        minutes on{" "}
        <CountField
          label="days a week"
          field="days_a_week"
          value={plan.days_a_week}
          hint="1 to 7; days of lessons are used last."
          onChange={(days_a_week) => set({ days_a_week })}
        />{" "}
        days a week, from{" "}
        <BriefField
          label="first day"
          field="start"
          value={plan.start}
          hint="As 2026-10-07."
          onChange={(start) => set({ start: start.trim() })}
        />{" "}
        for{" "}
        <CountField
          label="weeks"
          field="weeks"
          value={plan.weeks}
          hint="1 to 104."
          onChange={(weeks) => set({ weeks, until: null })}
        />{" "}
        weeks, not on{" "}
        <BriefField
          label="days off"
          field="off"
          value={plan.off.join(", ")}
          hint="Weekdays, dates, stretches: sunday, 2026-12-22/2027-01-02."
          placeholder="no day"
          onChange={(text) => set({ off: listed(text, ",") })}
        />
        , at most{" "}
        <CountField
          label="most minutes a day"
          field="most_a_day"
          value={plan.most_a_day}
          hint="The limit up to which missed minutes are spread again."
          onChange={(most_a_day) => set({ most_a_day })}
        />{" "}
        a day, no more than{" "}
        <CountField
          label="per cent more notes a week"
          field="most_more"
          value={plan.most_more}
          hint="More is flagged, not forbidden."
          onChange={(most_more) => set({ most_more })}
        />{" "}
        % more notes a week.
      </Brief>
      <div className="flex flex-wrap gap-2 no-print">
        {isChanged && (
          <>
            <button
              type="button"
              className="button"
              disabled={save.isPending}
              onClick={() => save.mutate(plan)}
            >
              Keep this plan
            </button>
            <button type="button" className="button button-quiet" onClick={() => setPlan(kept)}>
              {kept ? "As it was" : "No plan"}
            </button>
          </>
        )}
        {!isChanged && shown?.fits_date && (
          <button
            type="button"
            className="button"
            onClick={() => save.mutate({ ...plan, until: shown.fits_date })}
          >
            {shown.unplaced} minutes find no room: go on until {shown.fits}
          </button>
        )}
        {!isChanged && kept && (
          <>
            <a className="button button-quiet" href={files.calendar(student.id)} download>
              Save as a calendar
            </a>
            <button type="button" className="button button-quiet" onClick={() => window.print()}>
              Print this page
            </button>
            <button type="button" className="button button-quiet" onClick={() => save.mutate(null)}>
              Take the plan away
            </button>
          </>
        )}
      </div>
    </div>
  );
}
