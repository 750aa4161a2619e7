import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import { api, type Choices, type Climb, type Drill, files, type Schemas } from "../../api/client";
import { adoptDraft, type DraftEntry } from "../../api/outbox";
import { choicesQuery, climbQuery, drillQuery, forgetWork, readingQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading, useSlow } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { Rail } from "../../ui/rail/Rail";
import { refusalOf } from "../../ui/refusal";
import { SayIt } from "../../ui/SayIt";
import { useLastGood } from "../../ui/useLastGood";
import { useLetters } from "../../ui/useLetters";
import { useMadeDrill } from "../../ui/useMadeDrill";
import { useOnce } from "../../ui/useOnce";
import { WrittenOut } from "../../ui/written/WrittenOut";
import { AccentsAdded } from "./AccentsAdded";
import { DrillBrief } from "./DrillBrief";
import { DrillTools } from "./DrillTools";
import { MoreSums } from "./MoreSums";
import { OwnBars, ownTitle } from "./OwnBars";
import { type Press, Pressing } from "./Pressing";
import { SaveAs, type Sound } from "./SaveAs";
import { SaveLine } from "./SaveLine";
import { SoundFile } from "./SoundFile";
import { SumsColumn } from "./SumsColumn";
import { type Opened, useAutosave } from "./useAutosave";
import { useHistory } from "./useHistory";
import { type Tool, useTool } from "./useTool";
import { Versions } from "./Versions";

/** The bench: where a drill is made. */
export function BenchPage() {
  const id = Number(useParams().drillId);
  const [search] = useSearchParams();
  const choices = useQuery(choicesQuery);
  // What lies here of it and is not kept yet; asked for anew each time that the bench is opened, and before the drill:
  // what another page has just sent of it is then in what the server gives.
  const draft = useQuery({ queryKey: ["draft", id], queryFn: () => adoptDraft(id), staleTime: 0, gcTime: 0 });
  const climbId = draft.data?.climb ?? Number(search.get("climb") ?? 0);
  const climb = useQuery({ ...climbQuery(climbId), enabled: draft.isSuccess && climbId > 0 });
  const kept = useQuery({
    ...drillQuery(id),
    staleTime: 0,
    refetchOnMount: "always",
    enabled: draft.isSuccess,
  });
  // The bench goes on with what it opened; later answers about the same drill are its own saves.
  const [opened, setOpened] = useState<OpenedDrill | null>(null);
  if (kept.data && !kept.isFetching && draft.isSuccess && opened?.kept.id !== id)
    setOpened({ kept: kept.data, draft: draft.data });
  if (kept.isError && !kept.data) return <Problem error={kept.error} onRetry={() => void kept.refetch()} />;
  if (choices.isError) return <Problem error={choices.error} onRetry={() => void choices.refetch()} />;
  if (!opened || opened.kept.id !== id || !choices.data || climb.isLoading)
    return <Loading what="the drill" />;
  // A climb that is of this drill no more says nothing of it, and neither does one that has its own already.
  const { name } = climb.data?.student ?? {};
  const isShared =
    climb.data?.drill_id === id && !opened.kept.drill.title.startsWith(ownTitle(name ?? "", ""));
  return (
    <Bench key={id} opened={opened} choices={choices.data} climb={isShared ? (climb.data ?? null) : null} />
  );
}

/** A drill as far as it is read: no letter of its title, or of what it is for, changes its rail and sums. */
function heardOf(drill: Drill): Drill {
  // One without a title is refused, with the sentence for it.
  return { ...drill, title: drill.title.trim() && "–", purpose: "" };
}

type OpenedDrill = { kept: Schemas["DrillShape"]; draft: DraftEntry | null };

type Props = {
  opened: OpenedDrill;
  choices: Choices;
  /** The climb that it was opened from, where that shares it with others. */
  climb: Climb | null;
};

function Bench({ opened: { kept: opened, draft }, choices, climb }: Props) {
  const navigate = useNavigate();
  const { drill, change, undo, redo, canUndo, canRedo } = useHistory(
    // A draft of an older version lacks what has come since: that is as the kept drill has it.
    draft ? { ...opened.drill, ...draft.body.drill } : opened.drill,
  );
  const begun: Opened = draft
    ? { drill: opened.drill, version: draft.body.based_on, writer: draft.body.writer }
    : { drill: opened.drill, version: opened.version };
  // What was opened from a student’s climb is changed for that student or for everybody: asked once, before it is kept.
  const [isForAll, setForAll] = useState(climb === null);
  const name = climb?.student.name ?? "";
  const undecided = useMemo(
    () =>
      climb && !isForAll
        ? { climb: climb.id, why: `It is not said yet whether this is for ${name} only or for everybody.` }
        : null,
    [climb, isForAll, name],
  );
  const save = useAutosave(opened.id, drill, begun, undecided);
  const takeTheirs = async () => {
    const theirs = await save.takeTheirs();
    if (theirs) change(theirs, "theirs");
  };
  const reading = useQuery({
    ...readingQuery(heardOf(drill)),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // What is refused leaves the last rail and sums standing.
  const shown = useLastGood(reading.data);
  const [versionsOpen, setVersionsOpen] = useState(false);
  const [sounding, setSounding] = useState<{ sound: Sound; version: number } | null>(null);
  const slow = useSlow(reading.isFetching);

  // Whoever needs the drill gets what stands here now, not what was kept a moment ago.
  const leaveFor = async (where: (version: number) => string) => {
    const version = await save.saveNow();
    if (version !== null) void navigate(where(version));
    // Where it waits for a word, the word is asked for.
    else document.querySelector<HTMLElement>(".for-whom button")?.focus();
  };
  const download = async (ending: string) => {
    const version = await save.saveNow();
    if (version !== null) window.location.assign(files.drill(opened.id, version, ending));
  };
  const makeSound = async (sound: Sound) => {
    const version = await save.saveNow();
    if (version !== null) setSounding({ sound, version });
  };
  const once = useOnce();
  const copy = useMadeDrill(api.addDrill);
  const ownBar = useMutation({
    mutationFn: (name: string) => {
      const made = { ...drill, title: ownTitle(name, drill.title) };
      return api.addDrill(made, once.key(made));
    },
    onSuccess: () => {
      once.done();
      forgetWork();
    },
  });
  const ownDrill = useMutation({
    mutationFn: async () => {
      if (!climb) throw new Error("No climb is asked for.");
      const made = { ...drill, title: ownTitle(name, drill.title) };
      return api.takeOwn(climb.id, made, climb.revision, once.key(made));
    },
    onSuccess: (gone) => {
      once.done();
      save.drop();
      forgetWork();
      void navigate(`/bench/${gone.drill_id}`);
    },
  });
  const tool = useTool(drill, change);
  const { mutate: use } = tool;
  // What the last tool turned round is marked until the drill is another one again.
  const turned = useMemo(
    () => (tool.data?.drill === drill ? new Set(tool.data.turned) : undefined),
    [tool.data, drill],
  );
  const pressable = shown?.pressable ?? false;
  const [chosenPress, setPress] = useState<Press | null>(null);
  // Whatever can be sounded and silenced is; else a press is a hit.
  const pressing =
    chosenPress && (pressable || chosenPress !== "press") ? chosenPress : pressable ? "press" : "hit";
  const press = useCallback((event: number) => use({ tool: pressing, event }), [use, pressing]);
  const byKey = useMemo(() => {
    const uses = (tool: Tool["tool"]) => (event: number) => use({ tool, event });
    return { h: uses("hit"), o: uses("ornament"), f: uses("finger"), b: uses("phrase"), c: uses("click") };
  }, [use]);
  const pressGrip = useCallback((event: number) => use({ tool: "grip", event }), [use]);
  // What the last sentence changed, until the drill is another one again.
  const [said, setSaid] = useState<{ drill: Drill; told: string[] } | null>(null);
  const page = useRef<HTMLDivElement>(null);
  const { state } = useLocation();
  const isNew = (state as { isNew?: boolean } | null)?.isNew ?? false;
  useEffect(() => {
    if (isNew) page.current?.querySelector<HTMLElement>(".brief select")?.focus();
  }, [isNew]);
  const toStand = () => void leaveFor((version) => `/stand/drill/${opened.id}?version=${version}`);
  useLetters("p", toStand);
  useHotkeys("mod+z", undo, { preventDefault: true });
  useHotkeys("mod+shift+z,mod+y", redo, { preventDefault: true });

  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_19rem]" ref={page}>
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
          <SaveLine
            state={save.state}
            onVersions={() => setVersionsOpen(true)}
            onKeepMine={save.keepMine}
            onTakeTheirs={takeTheirs}
            forWhom={
              isForAll
                ? null
                : {
                    name,
                    onOwn: () => ownDrill.mutate(),
                    onEverybody: () => setForAll(true),
                    isBusy: ownDrill.isPending,
                  }
            }
          />
          <div className="flex flex-wrap gap-2 ml-auto">
            <button
              type="button"
              className="button button-quiet"
              onClick={() => void leaveFor(() => `/climbs/new?drill=${opened.id}`)}
            >
              Start a climb
            </button>
            <button type="button" className="button button-first" onClick={toStand}>
              Put on the stand <Key name="P" />
            </button>
          </div>
        </div>
        <SayIt
          label="Say what changes"
          placeholder="in A, groups of 7, 96"
          drill={drill}
          onSaid={(said, text) => {
            change(said.drill, `say ${text}`);
            setSaid({ drill: said.drill, told: said.told });
          }}
        />
        {said?.drill === drill && (
          <p role="status" className="mb-2">
            {said.told.join("; ") || "Nothing is another thing than before."}.{" "}
            <button type="button" className="text-link" onClick={undo}>
              Take it back
            </button>
          </p>
        )}
        <DrillBrief
          drill={drill}
          choices={choices}
          reading={shown ?? null}
          refusal={refusalOf(reading.error)}
          onChange={change}
        />
        {slow && (
          <p role="status" className="text-soft">
            Working it out …
          </p>
        )}
        <AccentsAdded
          id={opened.id}
          sentence={shown?.accents_added ?? ""}
          onAlone={() => change({ ...drill, accents: { kind: "none" } }, "accents")}
        />
        {shown && (
          <Rail
            reading={shown}
            onPress={press}
            onClick={byKey.c}
            byKey={byKey}
            onGrip={pressGrip}
            turned={turned}
          />
        )}
        {shown && (
          <Pressing
            notes={pressable}
            cells={shown.cells}
            press={pressing}
            onPress={setPress}
            onUse={tool.mutate}
          />
        )}
        {shown && <MoreSums reading={shown} />}
        <WrittenOut drill={drill} />
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
            onClick={() => void leaveFor((version) => `/bench/${opened.id}/sheet?version=${version}`)}
          >
            Hand-out
          </button>
          <button
            type="button"
            className="button"
            disabled={copy.isPending}
            onClick={() => copy.mutate({ ...drill, title: `Copy of ${drill.title}`.slice(0, 200) })}
          >
            Make a copy
          </button>
          <SaveAs
            choices={choices}
            onSave={(ending) => void download(ending)}
            onSound={(sound) => void makeSound(sound)}
          />
        </div>
        <DrillTools drill={drill} choices={choices} use={tool} />
        <OwnBars title={drill.title} onKeep={(name) => ownBar.mutate(name)} isPending={ownBar.isPending} />
        {ownDrill.isError && <Problem error={ownDrill.error} />}
        {ownBar.isError && <Problem error={ownBar.error} />}
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
      {sounding && (
        <SoundFile
          {...sounding}
          id={opened.id}
          bpm={drill.bpm}
          bpmLabel={shown?.bpm ?? drill.bpm}
          onClose={() => setSounding(null)}
        />
      )}
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
