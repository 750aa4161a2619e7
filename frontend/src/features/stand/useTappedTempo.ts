import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api } from "../../api/client";
import { useLetters } from "../../ui/useLetters";

const MOST_TAPS = 16;

/** The tempo as it is tapped with T: from the third tap on it is told. */
export function useTappedTempo(onTempo: (exact: string) => void) {
  const taps = useRef<number[]>([]);
  const tapped = useMutation({
    mutationFn: (moments: number[]) => api.tappedTempo(moments),
    onSuccess: ({ exact }) => onTempo(exact),
  });
  const tap = (stampMs: number) => {
    taps.current = [...taps.current, stampMs / 1000].slice(-MOST_TAPS);
    if (taps.current.length > 2) tapped.mutate(taps.current);
  };
  useLetters("t", (event) => tap(event.timeStamp));
  return { tap, error: tapped.error };
}
