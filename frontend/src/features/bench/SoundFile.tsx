import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import { Dialog } from "../../ui/Dialog";
import { FileProgress } from "../../ui/FileProgress";
import { Loading } from "../../ui/Loading";
import { A_BAR_OF_COUNT } from "../../ui/PlayAlong";
import { Problem } from "../../ui/Problem";
import type { Sound } from "./SaveAs";

type Props = {
  id: number;
  version: number;
  bpm: string;
  bpmLabel: string;
  sound: Sound;
  onClose: () => void;
};

/** A drill as sound to play along with, at its own tempo: two passes after a bar of count-in. */
export function SoundFile({ id, version, bpm, bpmLabel, sound, onClose }: Props) {
  const begun = useQuery({
    queryKey: ["sound-file", id, version, bpm, sound],
    queryFn: () =>
      api.playAlong({
        drill_id: id,
        version,
        rungs: [{ bpm, click: null }],
        sound,
        is_set: false,
        passes: 2,
        timbre: "beep",
        click: true,
        notes: true,
        backing: [],
        spoken: { what: "nothing", words: "count" },
        before: { ...A_BAR_OF_COUNT, aloud: false },
      }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
  });
  return (
    <Dialog title="Sound to play along" onClose={onClose}>
      <p>
        Two passes at {bpmLabel} bpm, after a bar of count-in. For several tempi, make the file from a climb.
      </p>
      {begun.isPending && <Loading what="the file" />}
      {begun.isError && <Problem error={begun.error} onRetry={() => void begun.refetch()} />}
      {begun.data && <FileProgress begun={begun.data} />}
    </Dialog>
  );
}
