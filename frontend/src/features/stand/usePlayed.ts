import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { performanceQuery } from "../../api/queries";
import { useLastGood } from "../../ui/useLastGood";
import type { Count } from "./count";
import { type Practice, partDue } from "./practice";
import type { Sound } from "./sound";
import type { Subject } from "./useTakes";

/** Before a beat that has to be found: nothing that gives it away. */
const NOTHING_BEFORE = { listen_bars: 0, say_bars: 0, count_bars: 0, count_beats: 0, count_words: "" };
const SILENT = { what: "nothing", words: "count" } as const;

/** What the voice says: what a remedy asks for, else what is chosen. */
function spokenOf({ remedy }: Practice, sound: Sound): Sound["spoken"] {
  return remedy && remedy.spoken.what !== "nothing" ? remedy.spoken : sound.spoken;
}

/** What is played of a subject, as the words of the stand ask for it; what could be played last while that is refused. */
export function usePlayed(subject: Subject, bpm: string, count: Count, practice: Practice, sound: Sound) {
  const isHidden = practice.beat === "hidden";
  const asked = useQuery({
    ...performanceQuery({
      drill: practice.remedy?.drill ?? subject.drill,
      bpm: practice.bpm ?? bpm,
      click: practice.remedy ? null : subject.click,
      // Who has to find the beat gets no count that gives it away.
      before: {
        ...(isHidden ? NOTHING_BEFORE : count.before),
        ...(practice.remedy?.say_bars ? { say_bars: practice.remedy.say_bars } : {}),
        aloud: sound.aloud,
      },
      spoken: isHidden ? SILENT : spokenOf(practice, sound),
      pulse: isHidden ? null : (practice.remedy?.pulse ?? count.pulse),
      backing: sound.parts ?? [],
      part: partDue(practice, subject.part),
      turns: practice.turns,
      slow: practice.slow ? practice.share : null,
    }),
    placeholderData: keepPreviousData,
  });
  // What is refused, a click that was mistyped, leaves standing what could be played.
  const played = useLastGood(asked.data);
  // What was hidden at first is not held against anyone, though it was revealed.
  // A rung may ask for a part of the drill: that is the climb itself.
  const isOfRung = subject.part !== null && partDue(practice, subject.part) === subject.part;
  const isOther = isOfRung ? practice.turns !== null || practice.slow : (played?.is_practice ?? false);
  const isPractice =
    isOther || practice.beat !== "shown" || practice.bpm !== null || practice.remedy !== null;
  const isMeasured = (played?.is_measured ?? false) && practice.beat === "shown";
  const written = { drill: practice.remedy?.drill ?? subject.drill, part: partDue(practice, subject.part) };
  return { asked, played, written, isPractice, isMeasured, isHidden };
}
