import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Drill } from "../../api/client";
import { choicesQuery, queryClient } from "../../api/queries";
import type { Player } from "../../audio/player";
import { NOTHING_BEFORE, SILENT } from "../stand/count";
import { ALL_OF_IT, partOf } from "../stand/practice";

/** A ready drill played once through, before it is taken; a second press stops it. */
export function useHear() {
  const [now, setNow] = useState<string | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const player = useRef<Player | null>(null);
  const ends = useRef(0);
  const asked = useRef<string | null>(null);
  const stop = useCallback(() => {
    asked.current = null;
    window.clearTimeout(ends.current);
    player.current?.stop();
    setNow(null);
  }, []);
  useEffect(
    () => () => {
      asked.current = null;
      window.clearTimeout(ends.current);
      player.current?.close();
      player.current = null;
    },
    [],
  );
  const play = async (key: string) => {
    stop();
    asked.current = key;
    setNow(key);
    setError(null);
    try {
      const [{ drill }, made, { Player }] = await Promise.all([
        api.ofShelf(key),
        queryClient.ensureQueryData(choicesQuery),
        import("../../audio/player"),
      ]);
      const given = await api.performance(bodyOf(drill));
      if (asked.current !== key) return;
      player.current ??= new Player(made);
      player.current.onLost = stop;
      const stretch = await player.current.start(given.performance, given.voice);
      if (!stretch || asked.current !== key) return;
      const { lead, loop_seconds } = given.performance;
      player.current.endAt = stretch.base + loop_seconds;
      ends.current = window.setTimeout(stop, (lead.seconds + loop_seconds + 0.5) * 1000);
    } catch (caught) {
      stop();
      setError(caught as Error);
    }
  };
  return { now, error, toggle: (key: string) => (now === key ? stop() : void play(key)) };
}

function bodyOf(drill: Drill): Parameters<typeof api.performance>[0] {
  return {
    drill,
    bpm: drill.bpm,
    click: null,
    before: { ...NOTHING_BEFORE, aloud: false },
    spoken: SILENT,
    pulse: null,
    backing: [],
    part: partOf(ALL_OF_IT),
    turns: null,
    slow: null,
    over: null,
  };
}
