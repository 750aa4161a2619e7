import type { ReactNode } from "react";
import type { Reading } from "../../api/client";
import type { Moment } from "./runs";

type Props = {
  title: string;
  above: ReactNode;
  reading: Reading;
  moment: Moment;
  passes: number | null;
  large: boolean;
  /** What the student does while nobody plays. */
  meanwhile: string;
  words: ReactNode;
  /** Lines of technique and what to talk of: beside the word, never over the notes. */
  cues: readonly string[];
  /** Shows the figures, where the ear comes first; null where they stand there anyway. */
  onFigures: (() => void) | null;
};

/** The big numbers: tempo, speed, where one is; and the words that set the click and the count. */
export function StandTop(props: Props) {
  const { title, above, reading, moment, passes, large, meanwhile, words, cues, onFigures } = props;
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
      <div>
        <p className="text-soft">{above}</p>
        <p className={`big-number ${large ? "big-number-large" : ""}`}>
          <span className="sr-only">{reading.sign_name} = </span>
          {reading.bpm}
        </p>
      </div>
      <div className="pb-2 min-w-0">
        <h1 className="text-soft break-words max-w-120 font-sans font-normal">{title}</h1>
        {onFigures ? (
          <button type="button" className="button button-small button-quiet" onClick={onFigures}>
            Show the figures
          </button>
        ) : (
          <>
            <p className={`font-display font-bold ${large ? "text-5xl" : "text-2xl"}`}>
              {reading.peak_nps} notes a second
            </p>
            <p className="text-soft">{reading.closest}</p>
          </>
        )}
      </div>
      <div className="pb-2 min-w-44" aria-live="off">
        <Where
          moment={moment}
          bars={reading.bars}
          barsSaid={reading.bars_said}
          seconds={reading.seconds}
          passes={passes}
          large={large}
          meanwhile={meanwhile}
        />
        {cues.map((cue) => (
          <p key={cue} className={`cue ${large ? "text-4xl" : "text-xl"}`}>
            {cue}
          </p>
        ))}
      </div>
      {!large && <div className="stand-words">{words}</div>}
    </div>
  );
}

type WhereProps = Pick<Props, "moment" | "passes" | "large" | "meanwhile"> & {
  bars: string;
  barsSaid: string;
  seconds: string;
};

function Where({ moment, bars, barsSaid, seconds, passes, large, meanwhile }: WhereProps) {
  const size = `font-display font-bold ${large ? "text-6xl" : "text-2xl"}`;
  const counted = `font-display font-bold leading-none ${large ? "text-8xl" : "text-5xl"}`;
  switch (moment.phase) {
    case "idle":
      return (
        <>
          <p className={size}>{barsSaid}</p>
          <p className="text-soft">a pass lasts {seconds} seconds</p>
        </>
      );
    case "listen":
      return (
        <>
          <p className={size}>Listen</p>
          <p className="text-soft">{meanwhile}</p>
        </>
      );
    case "say":
      return (
        <>
          <p className={counted}>{moment.word}</p>
          <p className="text-soft">Say it: {moment.division} a beat. Nobody plays yet.</p>
        </>
      );
    case "count":
      return (
        <>
          <p className={counted}>{moment.word || "Ready"}</p>
          <p className="text-soft">Ready: the count leads to the first note.</p>
        </>
      );
    case "play":
      return (
        <>
          <p className={size}>
            {moment.word === "" ? "" : `${moment.word}: `}bar {moment.bar}{" "}
            <span className="text-soft">of {bars}</span>
          </p>
          <p className="text-soft">
            pass {moment.pass}
            {passes ? ` of ${passes}` : ""}
          </p>
        </>
      );
  }
}
