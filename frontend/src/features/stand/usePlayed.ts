import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { performanceQuery } from "../../api/queries";
import { useLastGood } from "../../ui/useLastGood";
import { type Count, NOTHING_BEFORE, SILENT } from "./count";
import { type Practice, partDue } from "./practice";
import type { Sound } from "./sound";
import type { Subject } from "./useTakes";

/** What the voice says: what a remedy asks for, else what is chosen. */
function spokenOf({ remedy }: Practice, sound: Sound): Sound["spoken"] {
  return remedy && remedy.spoken.what !== "nothing" ? remedy.spoken : sound.spoken;
}

/** The drill that sounds: of a remedy, of what it is held against, or the one on the stand. */
const heardOf = ({ remedy, against }: Practice, subject: Subject) =>
  remedy?.drill ?? (against?.isHeard ? against.drill : subject.drill);

/** Whether another drill is heard than the one that is kept: no take of it could be held against that. */
const isHeardOtherwise = ({ against, circuit }: Practice) => (against?.isHeard ?? false) || circuit !== null;

/** What is played of a subject, as the words of the stand ask for it; what could be played last while that is refused. */
export function usePlayed(subject: Subject, bpm: string, count: Count, practice: Practice, sound: Sound) {
  const isHidden = practice.beat === "hidden";
  const asked = useQuery({
    ...performanceQuery({
      drill: heardOf(practice, subject),
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
      over: practice.circuit?.stations[practice.circuit.at]?.over ?? null,
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
    isOther ||
    practice.beat !== "shown" ||
    practice.bpm !== null ||
    practice.remedy !== null ||
    isHeardOtherwise(practice);
  const isMeasured =
    (played?.is_measured ?? false) && practice.beat === "shown" && !isHeardOtherwise(practice);
  const written = { drill: heardOf(practice, subject), part: partDue(practice, subject.part) };
  return { asked, played, written, isPractice, isMeasured, isHidden };
}
