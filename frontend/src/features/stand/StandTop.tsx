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
  words: ReactNode;
};

/** The big numbers: tempo, speed, where one is; and the words that set the click and the count. */
export function StandTop({ title, above, reading, moment, passes, large, words }: Props) {
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
        <p className={`font-display font-bold ${large ? "text-5xl" : "text-2xl"}`}>
          {reading.peak_nps} notes a second
        </p>
        <p className="text-soft">
          at {reading.fastest} a beat, {reading.legs.find((leg) => leg.division === reading.fastest)?.gap_ms}{" "}
          ms between notes
        </p>
      </div>
      <div className="pb-2 min-w-44" aria-live="off">
        <Where
          moment={moment}
          bars={reading.bars}
          barsSaid={reading.bars_said}
          passes={passes}
          large={large}
        />
      </div>
      {!large && <div className="stand-words">{words}</div>}
    </div>
  );
}

type WhereProps = { moment: Moment; bars: string; barsSaid: string; passes: number | null; large: boolean };

function Where({ moment, bars, barsSaid, passes, large }: WhereProps) {
  const size = `font-display font-bold ${large ? "text-6xl" : "text-2xl"}`;
  switch (moment.phase) {
    case "idle":
      return (
        <>
          <p className={size}>{barsSaid}</p>
          <p className="text-soft">a pass lasts {barsSaid}</p>
        </>
      );
    case "listen":
      return (
        <>
          <p className={size}>Listen</p>
          <p className="text-soft">Nobody plays: sway, and feel where beat 1 is.</p>
        </>
      );
    case "count":
      return (
        <>
          <p className={size}>{moment.word}</p>
          <p className="text-soft">Ready: the first note comes on 1.</p>
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
