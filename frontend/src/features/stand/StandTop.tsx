import type { ReactNode } from "react";
import type { Reading } from "../../api/client";
import { Key } from "../../ui/Key";
import type { Moment } from "./runs";

type Props = {
  /** Who and what, as links. */
  title: ReactNode;
  above: ReactNode;
  reading: Reading;
  moment: Moment;
  passes: number | null;
  large: boolean;
  /** What the student does while nobody plays. */
  meanwhile: string;
  /** What is set, in one sentence; only while nothing plays. */
  words: ReactNode;
  onSetUp: () => void;
  /** Lines of technique and what to talk of: beside the word, never over the notes. */
  cues: readonly string[];
  /** Shows the figures, where the ear comes first; null where they stand there anyway. */
  onFigures: (() => void) | null;
  /** One press slower or faster; null where there is none. */
  onSlower: (() => void) | null;
  onFaster: (() => void) | null;
};

/** Tempo, who and what, speed; at the right what is set, and while it plays where one is. */
export function StandTop(props: Props) {
  const { title, above, reading, moment, passes, large, meanwhile, words, cues, onFigures } = props;
  return (
    <div className="stand-top">
      <div>
        <p className="text-soft leading-tight">{above}</p>
        <div className="flex items-center gap-x-4">
          <p className={`big-number ${large ? "big-number-large" : ""}`}>
            <span className="sr-only">{reading.sign_name} = </span>
            {reading.bpm}
          </p>
          <div className="flex flex-col items-start">
            <Pace name="faster" sign="]" onPress={props.onFaster} />
            <Pace name="slower" sign="[" onPress={props.onSlower} />
          </div>
        </div>
      </div>
      <div className="min-w-0">
        <div className="stand-who">{title}</div>
        {onFigures ? (
          <button type="button" className="button button-small button-quiet" onClick={onFigures}>
            Show the figures
          </button>
        ) : (
          <>
            <p className={`font-display font-bold leading-tight ${large ? "text-5xl" : "text-2xl"}`}>
              {reading.peak_nps} notes a second
            </p>
            <p className="text-soft leading-snug">
              {reading.closest} · {reading.bars_said}, {reading.seconds} s
            </p>
          </>
        )}
      </div>
      <div className="stand-side">
        {moment.phase === "idle" ? (
          !large && words
        ) : (
          <Where moment={moment} bars={reading.bars} passes={passes} large={large} meanwhile={meanwhile} />
        )}
        <button type="button" className="button button-quiet" onClick={props.onSetUp}>
          Set up … <Key name="O" />
        </button>
        {cues.map((cue) => (
          <p key={cue} className={`cue ${large ? "text-4xl" : "text-lg"}`}>
            {cue}
          </p>
        ))}
      </div>
    </div>
  );
}

type PaceProps = { name: string; sign: string; onPress: (() => void) | null };

function Pace({ name, sign, onPress }: PaceProps) {
  return (
    <button type="button" className="button button-quiet" disabled={!onPress} onClick={onPress ?? undefined}>
      {name} <Key name={sign} />
    </button>
  );
}

type WhereProps = Pick<Props, "moment" | "passes" | "large" | "meanwhile"> & { bars: string };

/** Where one is while it plays: what is counted, said or played now. */
function Where({ moment, bars, passes, large, meanwhile }: WhereProps) {
  const size = `font-display font-bold ${large ? "text-6xl" : "text-2xl"}`;
  const counted = `font-display font-bold leading-none ${large ? "text-8xl" : "text-5xl"}`;
  switch (moment.phase) {
    case "idle":
      return null;
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
