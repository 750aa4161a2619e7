import { useRef, useState } from "react";
import { api, type Judged, type Part } from "../api/client";
import { forgetWork } from "../api/queries";
import { DropZone } from "./DropZone";
import { freshId } from "./freshId";
import { MARK_WORDS } from "./marks";

/** What dropped files are to be takes of. */
export type FilesOf = {
  studentId: number;
  climbId: number | null;
  rung: number | null;
  drillId: number;
  version: number;
  bpm: string;
  part: Part | null;
};

type State = {
  id: string;
  name: string;
  is: "waiting" | "sent" | "heard" | "done" | "refused";
  share: number;
  says: string;
};
/** Files that become takes: how far each is, and how more are taken in; lives longer than what shows it. */
export type FilesTaken = { files: readonly State[]; take: (chosen: FileList | null) => void };

const ACCEPT = ".wav,.flac,.ogg,.oga,.opus,.mp3,.aif,.aiff,.mid,.midi,audio/*";
const LARGEST = 260_000_000;
const PIECE = 3_000_000;

/** Take in recordings and MIDI files, several at once, one after the other. */
export function useFilesIn(of: FilesOf | null, onJudged?: (judged: Judged) => void): FilesTaken {
  const [files, setFiles] = useState<State[]>([]);
  const line = useRef<Promise<void>>(Promise.resolve());
  const change = (id: string, to: Partial<State>) =>
    setFiles((old) => old.map((one) => (one.id === id ? { ...one, ...to } : one)));
  const take = (chosen: FileList | null) => {
    if (!of) return;
    for (const file of chosen ?? []) {
      const id = freshId();
      setFiles((old) => [...old, { id, name: file.name, is: "waiting", share: 0, says: "waits" }]);
      line.current = line.current.then(() => takeIn(file, id, of, (to) => change(id, to), onJudged));
    }
  };
  return { files, take };
}

/** Where recordings and MIDI files that become takes are chosen. */
export function ChooseFiles({ take }: Pick<FilesTaken, "take">) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-soft">Recordings and MIDI files become takes: drop them here, or</span>
        <button type="button" className="button button-small" onClick={() => picker.current?.click()}>
          Choose files
        </button>
      </p>
      <input
        ref={picker}
        type="file"
        multiple
        accept={ACCEPT}
        className="sr-only"
        tabIndex={-1}
        aria-label="Recordings and MIDI files to take in"
        onChange={(event) => {
          take(event.target.files);
          event.target.value = "";
        }}
      />
    </>
  );
}

/** How far each file is that was taken in. */
export function FilesList({ files }: Pick<FilesTaken, "files">) {
  if (files.length === 0) return null;
  return (
    <ul className="mt-1" aria-live="polite">
      {files.map((one) => (
        <li key={one.id} className="flex flex-wrap items-center gap-x-3">
          <strong className="break-all">{one.name}</strong>
          {(one.is === "sent" || one.is === "heard") && (
            <progress
              className="progress progress-primary w-40"
              max={1}
              value={one.is === "sent" ? one.share : undefined}
              aria-label={one.name}
            />
          )}
          <span className={one.is === "refused" ? "text-error font-semibold" : ""}>{one.says}</span>
        </li>
      ))}
    </ul>
  );
}

/** Recordings and MIDI files that become takes: dropped or chosen. */
export function FilesIn({ of }: { of: FilesOf }) {
  const { files, take } = useFilesIn(of);
  return (
    <DropZone className="rounded-lg" onFiles={take}>
      <ChooseFiles take={take} />
      <FilesList files={files} />
    </DropZone>
  );
}

/** Send a file in pieces, and make it a take; says how far it is, and why where it is none. */
async function takeIn(
  file: File,
  id: string,
  of: FilesOf,
  tell: (to: Partial<State>) => void,
  onJudged?: (judged: Judged) => void,
): Promise<void> {
  try {
    if (file.size > LARGEST) throw new Error("It is larger than 260 MB: cut out the take.");
    if (file.size === 0) throw new Error("It is empty.");
    for (let number = 0; number * PIECE < file.size; number++) {
      tell({ is: "sent", share: (number * PIECE) / file.size, says: "is sent" });
      await api.sendPiece(id, number, file.slice(number * PIECE, (number + 1) * PIECE));
    }
    tell({ is: "heard", says: "is listened to" });
    const judged = await api.takeFromFile({
      key: id,
      name: file.name,
      id,
      student_id: of.studentId,
      climb_id: of.climbId,
      rung: of.rung,
      drill_id: of.drillId,
      version: of.version,
      bpm: of.bpm,
      part: of.part,
      sounds_as: null,
      played_at: new Date(file.lastModified).toISOString(),
    });
    const { mark, reasons } = judged.take;
    tell({ is: "done", says: `${MARK_WORDS[mark]}. ${reasons[0] ?? ""}` });
    forgetWork();
    onJudged?.(judged);
  } catch (error) {
    tell({ is: "refused", says: `is no take: ${(error as Error).message}` });
  }
}
