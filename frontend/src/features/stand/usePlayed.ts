import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { performanceQuery } from "../../api/queries";
import { useLastGood } from "../../ui/useLastGood";
import type { Count } from "./count";
import { loopOf, type Practice, reduceOf } from "./practice";
import type { Sound } from "./sound";
import type { Subject } from "./useTakes";

/** Before a beat that has to be found: nothing that gives it away. */
const NOTHING_BEFORE = { listen_bars: 0, say_bars: 0, count_bars: 0, count_beats: 0, count_words: "" };
const SILENT = { what: "nothing", words: "count" } as const;

/** What is played of a subject, as the words of the stand ask for it; what could be played last while that is refused. */
export function usePlayed(subject: Subject, bpm: string, count: Count, practice: Practice, sound: Sound) {
  const isHidden = practice.beat === "hidden";
  const asked = useQuery({
    ...performanceQuery({
      drill: subject.drill,
      bpm: practice.bpm ?? bpm,
      click: subject.click,
      // Who has to find the beat gets no count that gives it away.
      before: { ...(isHidden ? NOTHING_BEFORE : count.before), aloud: sound.aloud },
      spoken: isHidden ? SILENT : sound.spoken,
      pulse: isHidden ? null : count.pulse,
      backing: sound.parts ?? [],
      step: practice.step,
      loop: loopOf(practice.loop),
      unmoved: practice.unmoved,
      turns: practice.turns,
      divide: practice.divide,
      reduce: reduceOf(practice.part),
      slow: practice.slow ? practice.share : null,
    }),
    placeholderData: keepPreviousData,
  });
  // What is refused, a click that was mistyped, leaves standing what could be played.
  const played = useLastGood(asked.data);
  // What was hidden at first is not held against anyone, though it was revealed.
  const isPractice = (played?.is_practice ?? false) || practice.beat !== "shown" || practice.bpm !== null;
  return { asked, played, isPractice, isHidden };
}
