import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { choicesQuery, sumsQuery } from "../../api/queries";
import { Brief } from "../../ui/brief/Brief";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";

/** The sum that is asked most: how fast is this? */
export function QuickSum() {
  const [asked, setAsked] = useState({ bpm: "108", division: "5" });
  const choices = useQuery(choicesQuery);
  const sums = useQuery({ ...sumsQuery(asked), placeholderData: keepPreviousData });
  const answer = useLastGood(sums.data);
  return (
    <section className="card-plain" aria-label="Quick sum">
      <h2>Quick sum</h2>
      <Brief label="How fast is a tempo" refusal={refusalOf(sums.error)}>
        <BriefField
          label="tempo in bpm"
          field="bpm"
          numeric
          before="♩ = "
          value={asked.bpm}
          onChange={(bpm) => setAsked({ ...asked, bpm })}
        />{" "}
        at{" "}
        <BriefSelect
          label="notes per beat"
          field="division"
          value={asked.division}
          choices={choices.data?.divisions ?? []}
          onChange={(division) => setAsked({ ...asked, division })}
        />{" "}
        a beat is <strong aria-live="polite">{answer?.speed ?? "…"}</strong>
      </Brief>
    </section>
  );
}
