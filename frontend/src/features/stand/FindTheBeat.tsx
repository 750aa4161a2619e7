import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Drill, type Part } from "../../api/client";
import { Key } from "../../ui/Key";
import { keep, kept } from "../../ui/kept";
import { useLetters } from "../../ui/useLetters";

type Tally = { day: string; right: number; tried: number };
const today = () => new Date().toDateString();
const NONE = (): Tally => ({ day: today(), right: 0, tried: 0 });

/** What was guessed in this lesson: of today, in this browser. */
function tallyOfToday(): Tally {
  const found = kept<Tally>("guesses");
  return found?.day === today() ? found : NONE();
}

type Props = {
  drill: Drill;
  part: Part;
  bpm: string;
  isPlaying: boolean;
  /** How far into its turn a moment of the screen's clock lies, in seconds. */
  within: (eventMs: number) => number | null;
};

/** Where is beat 1? A press is a guess; how far off it was is said, and how many were right in this lesson. */
export function FindTheBeat({ drill, part, bpm, isPlaying, within }: Props) {
  const [tally, setTally] = useState(tallyOfToday);
  const guess = useMutation({
    mutationFn: (at: number) => api.guess({ drill, part, bpm, at }),
    onSuccess: ({ is_right: right }) => {
      const now = { ...tally, tried: tally.tried + 1, right: tally.right + (right ? 1 : 0) };
      keep("guesses", now);
      setTally(now);
    },
  });
  const press = (eventMs: number) => {
    const at = within(eventMs);
    if (at !== null) guess.mutate(at);
  };
  useLetters("h", (event) => {
    if (!event.repeat) press(event.timeStamp);
  });
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <button
        type="button"
        className="button button-small"
        disabled={!isPlaying}
        onPointerDown={(event) => press(event.timeStamp)}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || event.repeat) return;
          event.preventDefault();
          press(event.timeStamp);
        }}
      >
        Here is 1 <Key name="H" />
      </button>
      <span role="status">
        {guess.data?.told ?? (isPlaying ? "Press where you hear beat 1." : "Start, and find beat 1.")}
      </span>
      {tally.tried > 0 && (
        <span className="text-soft">
          Today: {tally.right} of {tally.tried} on beat 1.
        </span>
      )}
      {guess.isError && (
        <span role="alert" className="text-error font-semibold">
          {guess.error.message}
        </span>
      )}
    </p>
  );
}
