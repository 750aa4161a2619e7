import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Choices, files, type Schemas } from "../../api/client";
import { queryClient, sheetPreviewQuery, sheetsQuery } from "../../api/queries";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { useSlow } from "../../ui/Loading";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";
import { useOnce } from "../../ui/useOnce";
import { useSettled } from "../../ui/useSettled";

export type Of = { climb_id: number } | { drill_id: number; version?: number };
type Options = Pick<Schemas["SheetBody"], "shows" | "form" | "paper" | "large" | "note">;

const LARGE = [
  { value: "no", label: "usual print", why: "As large as one page allows." },
  { value: "yes", label: "large print", why: "15 points: on more pages if it needs them." },
];
/** After the last letter of a note, before it is set again. */
const SETTLE = 500;

type Props = { of: Of; choices: Choices; hasStrings: boolean };

/** A sheet as it is before it is printed, what can be chosen of it, and those that were issued. */
export function MakeSheet({ of, choices, hasStrings }: Props) {
  const [options, setOptions] = useState<Options>({
    shows: "rail",
    form: null,
    paper: choices.settings_of_studio.paper,
    large: false,
    note: "",
  });
  const set = (changed: Partial<Options>) => setOptions({ ...options, ...changed });
  const asked = useSettled(options, SETTLE);
  const preview = useQuery({ ...sheetPreviewQuery({ ...of, ...asked }), placeholderData: keepPreviousData });
  const shown = useLastGood(preview.data);
  const slow = useSlow(preview.isFetching);
  const issued = useQuery(sheetsQuery(of));
  const once = useOnce();
  const issue = useMutation({
    mutationFn: () => {
      const body = { ...of, ...options };
      return api.issueSheet({ ...body, key: once.key(body) });
    },
    onSuccess: (sheet) => {
      once.done();
      void queryClient.invalidateQueries({ queryKey: ["sheets"] });
      window.location.assign(files.sheet(sheet.id));
    },
  });
  const staves = choices.staves.map((one) => ({ ...one, label: `on ${one.label}` }));
  return (
    <div className="grid gap-5 lg:grid-cols-[20rem_1fr]">
      <div className="min-w-0 space-y-3">
        <Brief label="The sheet" refusal={refusalOf(preview.error ?? issue.error)}>
          It shows{" "}
          <BriefSelect
            label="what the sheet shows"
            field="shows"
            value={options.shows ?? "rail"}
            choices={choices.sheet_shows}
            onChange={(shows) => set({ shows: shows as Options["shows"] })}
          />
          {hasStrings && options.shows !== "rail" && (
            <>
              {" "}
              <BriefSelect
                label="staves"
                field="form"
                value={options.form ?? "usual"}
                choices={[
                  { value: "usual", label: "as usual for it", why: "TAB too where strings are known." },
                  ...staves,
                ]}
                onChange={(form) => set({ form: form === "usual" ? null : (form as Options["form"]) })}
              />
            </>
          )}
          , in{" "}
          <BriefSelect
            label="size of print"
            field="large"
            value={options.large ? "yes" : "no"}
            choices={LARGE}
            onChange={(large) => set({ large: large === "yes" })}
          />
          , on{" "}
          <span className="whitespace-nowrap">
            <BriefSelect
              label="paper"
              field="paper"
              value={options.paper ?? "A4"}
              choices={choices.papers}
              onChange={(paper) => set({ paper: paper as Options["paper"] })}
            />
            .
          </span>
        </Brief>
        <label className="block">
          <span className="text-soft">What you write in</span>
          <textarea
            className="field"
            rows={4}
            maxLength={1000}
            value={options.note ?? ""}
            onChange={(event) => set({ note: event.target.value })}
          />
        </label>
        <button
          type="button"
          className="button button-first"
          disabled={issue.isPending || !shown}
          onClick={() => issue.mutate()}
        >
          Issue it as PDF
        </button>
        {issued.data?.differs && (
          <p className="bg-care text-care-text rounded-lg px-3 py-2 font-semibold">{issued.data.differs}</p>
        )}
        <Issued sheets={issued.data?.sheets ?? []} />
      </div>
      <div className="min-w-0">
        {preview.isError && !shown && (
          <Problem error={preview.error} onRetry={() => void preview.refetch()} />
        )}
        {slow && (
          <p role="status" className="text-soft">
            Setting the page …
          </p>
        )}
        {shown?.missing && (
          <p role="status" className="text-care-text font-semibold">
            {shown.missing}
          </p>
        )}
        {shown && <Pages pages={shown.pages} text={shown.text} />}
      </div>
    </div>
  );
}

/** What was handed out, each as it was. */
function Issued({ sheets }: { sheets: readonly Schemas["IssuedShape"][] }) {
  if (sheets.length === 0) return <p className="text-soft">None has been issued yet.</p>;
  return (
    <section>
      <h2>Issued</h2>
      <ul>
        {sheets.map((sheet) => (
          <li key={sheet.id}>
            <a href={files.sheet(sheet.id)}>Sheet {sheet.number}</a>, {moment(sheet.issued_at)}, version{" "}
            {sheet.version}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A sheet page by page, and the same as text for who listens or sends it. */
function Pages({ pages, text }: { pages: readonly string[]; text: string }) {
  return (
    <>
      {pages.map((page, index) => (
        <img
          key={index}
          src={page}
          alt={`Page ${index + 1} of ${pages.length} of the sheet; its text stands below.`}
          className="paper"
        />
      ))}
      <details className="mt-2">
        <summary className="cursor-pointer text-primary font-semibold">The sheet as text</summary>
        <pre className="card-plain whitespace-pre-wrap font-sans select-all">{text}</pre>
      </details>
    </>
  );
}
