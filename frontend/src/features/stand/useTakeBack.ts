import { useEffect, useRef, useState } from "react";

type Before = { bpm: string; label: string };

/** A tempo that was changed while it plays: the one before it, until it is taken back or the sound stops. */
export function useTakeBack(bpm: string, label: string, isPlaying: boolean, onTempo: (bpm: string) => void) {
  const last = useRef<Before>({ bpm, label });
  const [before, setBefore] = useState<Before | null>(null);
  // What was taken back is no change that could be taken back again.
  const taken = useRef<string | null>(null);
  useEffect(() => {
    const isChanged = last.current.bpm !== bpm && isPlaying && taken.current !== bpm;
    taken.current = null;
    if (isChanged) setBefore(last.current);
    if (!isPlaying) setBefore(null);
  }, [bpm, isPlaying]);
  // The label comes with the answer of the server, a moment after the tempo.
  useEffect(() => {
    last.current = { bpm, label };
  }, [bpm, label]);
  const takeBack = () => {
    if (before) {
      taken.current = before.bpm;
      onTempo(before.bpm);
    }
    setBefore(null);
  };
  return { before: before && before.bpm !== bpm ? before : null, takeBack };
}
