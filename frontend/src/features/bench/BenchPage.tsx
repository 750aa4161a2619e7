import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useNavigate, useParams } from "react-router";
import { api, type Choices, type Schemas } from "../../api/client";
import { choicesQuery, drillQuery, forgetWork, readingQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading, useSlow } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { Rail } from "../../ui/rail/Rail";
import { refusalOf } from "../../ui/refusal";
import { useLastGood } from "../../ui/useLastGood";
import { DrillBrief } from "./DrillBrief";
import { DrillTools } from "./DrillTools";
import { draftOf } from "./drafts";
import { Pressing } from "./Pressing";
import { SaveAs } from "./SaveAs";
import { SaveLine } from "./SaveLine";
import { SumsColumn } from "./SumsColumn";
import { useAutosave } from "./useAutosave";
import { useHistory } from "./useHistory";
import { useTool } from "./useTool";
import { Versions } from "./Versions";
import { Warnings } from "./Warnings";

/** The bench: where a drill is made. */
export function BenchPage() {
  const id = Number(useParams().drillId);
  const kept = useQuery({ ...drillQuery(id), refetchOnMount: "always" });
  const choices = useQuery(choicesQuery);
  // The bench goes on with what it opened; later answers about the same drill are its own saves.
  const [opened, setOpened] = useState<Schemas["DrillShape"] | null>(null);
  if (kept.data && !kept.isFetching && opened?.id !== id) setOpened(kept.data);
  if (kept.isError && !kept.data) return <Problem error={kept.error} onRetry={() => void kept.refetch()} />;
  if (choices.isError) return <Problem error={choices.error} onRetry={() => void choices.refetch()} />;
  if (!opened || opened.id !== id || !choices.data) return <Loading what="the drill" />;
  return <Bench key={id} opened={opened} choices={choices.data} />;
}

function Bench({ opened, choices }: { opened: Schemas["DrillShape"]; choices: Choices }) {
  const navigate = useNavigate();
  const [draft] = useState(() => draftOf(opened.id));
  const { drill, change, undo, redo, canUndo, canRedo } = useHistory(
    // A draft of an older version lacks what has come since: that is as the kept drill has it.
    draft ? { ...opened.drill, ...draft.drill } : opened.drill,
  );
  const save = useAutosave(opened.id, drill, draft?.basedOn ?? opened.version, opened.drill);
  const reading = useQuery({ ...readingQuery(drill), placeholderData: keepPreviousData, retry: false });
  // What is refused leaves the last rail and sums standing.
  const shown = useLastGood(reading.data);
  const [versionsOpen, setVersionsOpen] = useState(false);
  const slow = useSlow(reading.isFetching);

  // Whoever needs the drill gets what stands here now, not what was kept a moment ago.
  const leaveFor = async (where: (version: number) => string) => {
    const version = await save.saveNow();
    if (version !== null) void navigate(where(version));
  };
  const download = async (file: (id: number, version: number) => string) => {
    const version = await save.saveNow();
    if (version !== null) window.location.assign(file(opened.id, version));
  };
  const copy = useMutation({
    mutationFn: () => api.addDrill({ ...drill, title: `Copy of ${drill.title}`.slice(0, 200) }),
    onSuccess: (made) => {
      forgetWork();
      void navigate(`/bench/${made.id}`);
    },
  });
  const tool = useTool(drill, change);
  const { mutate: use } = tool;
  const pressable = drill.material.kind === "count" || drill.material.kind === "strum";
  const press = useCallback((event: number) => use({ tool: "press", event }), [use]);
  const pressClick = useCallback((event: number) => use({ tool: "click", event }), [use]);
  const toStand = () => void leaveFor((version) => `/stand/drill/${opened.id}?version=${version}`);
  useHotkeys("p", toStand);
  useHotkeys("mod+z", undo, { preventDefault: true });
  useHotkeys("mod+shift+z,mod+y", redo, { preventDefault: true });

  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_19rem]">
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-x-3 gap-y-2 mb-2">
          <h1 className="sr-only">{drill.title} on the bench</h1>
          <textarea
            className="title-field font-display"
            aria-label="title of the drill"
            rows={1}
            value={drill.title}
            maxLength={200}
            onChange={(event) =>
              change({ ...drill, title: event.target.value.replaceAll("\n", " ") }, "title")
            }
          />
          <SaveLine state={save.state} onVersions={() => setVersionsOpen(true)} onKeepMine={save.keepMine} />
          <button type="button" className="button button-first ml-auto" onClick={toStand}>
            Put on the stand <Key name="P" />
          </button>
        </div>
        <DrillBrief
          drill={drill}
          choices={choices}
          sign={shown?.sign ?? "♩"}
          meter={shown?.meter ?? drill.meter}
          refusal={refusalOf(reading.error)}
          onChange={change}
        />
        {slow && (
          <p role="status" className="text-soft">
            Working it out …
          </p>
        )}
        <Warnings
          warnings={shown?.warnings ?? []}
          drill={drill}
          onChange={(mended) => change(mended, "material")}
        />
        {shown && <Rail reading={shown} onPress={pressable ? press : undefined} onClick={pressClick} />}
        <Pressing notes={pressable} onUse={tool.mutate} />
        <div className="flex flex-wrap gap-2 mt-3">
          <button type="button" className="button button-quiet" disabled={!canUndo} onClick={undo}>
            Undo
          </button>
          <button type="button" className="button button-quiet" disabled={!canRedo} onClick={redo}>
            Redo
          </button>
          <button
            type="button"
            className="button"
            onClick={() => void leaveFor(() => `/climbs/new?drill=${opened.id}`)}
          >
            Start a climb
          </button>
          <button type="button" className="button" disabled={copy.isPending} onClick={() => copy.mutate()}>
            Make a copy
          </button>
          <SaveAs onSave={(file) => void download(file)} />
        </div>
        <DrillTools drill={drill} use={tool} />
        {copy.isError && <Problem error={copy.error} />}
        <label className="block mt-4 max-w-2xl">
          <span className="text-soft">What it is for</span>
          <input
            className="field"
            value={drill.purpose}
            maxLength={200}
            onChange={(event) => change({ ...drill, purpose: event.target.value }, "purpose")}
          />
        </label>
      </div>
      <aside className="space-y-4 min-w-0" aria-label="Sums of this drill">
        {shown && <SumsColumn reading={shown} />}
      </aside>
      {versionsOpen && (
        <Versions
          id={opened.id}
          onClose={() => setVersionsOpen(false)}
          onTake={(old) => {
            change(old, "version");
            setVersionsOpen(false);
          }}
        />
      )}
    </div>
  );
}
