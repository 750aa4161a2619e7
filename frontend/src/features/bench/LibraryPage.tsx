import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Schemas } from "../../api/client";
import { archiveQuery, drillsQuery, forgetWork } from "../../api/queries";
import { base64Of } from "../../ui/base64";
import { FileButton } from "../../ui/FileButton";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { textOf } from "../../ui/textOf";
import { useNewDrill } from "../../ui/useNewDrill";
import { useOnce } from "../../ui/useOnce";
import { DrillList } from "./DrillList";
import { OpenScore, type Score } from "./OpenScore";
import { OpenShared } from "./OpenShared";
import { SayDrill } from "./SayDrill";
import { ShareDrills } from "./ShareDrills";
import { hasWords } from "./search";

/** The drills of the studio, the last changed first. */
export function LibraryPage() {
  const navigate = useNavigate();
  const drills = useQuery(drillsQuery);
  const newDrill = useNewDrill();
  const [wanted, setWanted] = useState("");
  const [shared, setShared] = useState<{ text: string; looked: Schemas["LookedList"] } | null>(null);
  const [sharing, setSharing] = useState(false);
  const [score, setScore] = useState<Score | null>(null);
  const once = useOnce();
  const open = useMutation({
    mutationFn: async (file: File) => {
      if (/\.json$/i.test(file.name)) {
        const text = await textOf(file);
        if (/"format"\s*:\s*"ripresa\.drills\//.test(text.slice(0, 200))) {
          setShared({ text, looked: await api.lookAtShared(text) });
          return null;
        }
        return api.openDrillFile(text, once.key(text));
      }
      setScore({ name: file.name, base64: await base64Of(file) });
      return null;
    },
    onSuccess: (kept) => {
      if (!kept) return;
      once.done();
      forgetWork();
      void navigate(`/bench/${kept.id}`);
    },
  });
  if (drills.isPending) return <Loading what="the drills" />;
  if (drills.isError) return <Problem error={drills.error} onRetry={() => void drills.refetch()} />;
  const found = drills.data.drills.filter((one) =>
    hasWords(`${one.title} ${one.material} ${one.instrument} ${one.divisions} ${one.tags.join(" ")}`, wanted),
  );
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-4">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">Drills</h1>
        <FileButton
          label="A file to open"
          accept=".json,.mid,.midi,.musicxml,.xml,.mxl"
          disabled={open.isPending}
          onFile={open.mutate}
        >
          Open a file
        </FileButton>
        {drills.data.drills.length > 0 && (
          <button type="button" className="button" onClick={() => setSharing(true)}>
            Share
          </button>
        )}
        <Link className="button" to="/bench/shelf">
          From the shelf
        </Link>
        <button type="button" className="button button-first" onClick={() => newDrill.mutate()}>
          New drill <Key name="N" />
        </button>
      </div>
      <SayDrill />
      {open.isError && <Problem error={open.error} />}
      {newDrill.isError && <Problem error={newDrill.error} />}
      {drills.data.drills.length === 0 ? (
        <p className="card-plain">
          No drill yet. Make the first one, take one from the shelf, or open a file: a drill file, MIDI or
          MusicXML.
        </p>
      ) : (
        <>
          <label className="block mb-3 max-w-md">
            <span className="text-soft">Find by title, scale, instrument, division or tag</span>
            <input
              className="field"
              type="search"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
          </label>
          <DrillList drills={found} archived={false} />
          {found.length === 0 && <p className="text-soft">None with these words.</p>}
        </>
      )}
      <PutAway />
      {score && <OpenScore score={score} onClose={() => setScore(null)} />}
      {shared && <OpenShared {...shared} onClose={() => setShared(null)} />}
      {sharing && <ShareDrills drills={drills.data.drills} onClose={() => setSharing(false)} />}
    </div>
  );
}

/** Drills that were put away; asked for once they are looked at. */
function PutAway() {
  const [open, setOpen] = useState(false);
  const archive = useQuery({ ...archiveQuery, enabled: open });
  return (
    <details className="mt-5" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-primary font-semibold mb-2">What was put away</summary>
      {archive.isError && <Problem error={archive.error} onRetry={() => void archive.refetch()} />}
      {archive.data?.drills.length === 0 && (
        <p className="text-soft">Nothing. Climbs keep their drills anyway.</p>
      )}
      <DrillList drills={archive.data?.drills ?? []} archived />
    </details>
  );
}
