import { type ReactNode, useMemo, useState } from "react";
import { flushSync } from "react-dom";
import type { Drill } from "../../api/client";
import { DropZone } from "../../ui/DropZone";
import { FilesList, useFilesIn } from "../../ui/FilesIn";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { Written } from "../../ui/written/WrittenOut";
import { AfterTheTake } from "./AfterTheTake";
import { BeforeTheTry } from "./BeforeTheTry";
import { Station } from "./CircuitWords";
import { FindTheBeat } from "./FindTheBeat";
import { HearingLine } from "./hearing/HearingLine";
import { Steps } from "./PracticeWords";
import { loopsOf } from "./practice";
import type { Moment } from "./runs";
import { StandButtons } from "./StandButtons";
import { StandDialogs } from "./StandDialogs";
import { StandRail } from "./StandRail";
import { StandSetUp } from "./StandSetUp";
import { StandTop } from "./StandTop";
import { StandWords } from "./StandWords";
import { useRest } from "./useRest";
import { type StandProps, useStandScreen } from "./useStandScreen";

const NO_STROKES: readonly string[] = ["R", "L"];

/** The stand: where a drill is played, heard and measured. While it plays only tempo, rail and the bar are there. */
export function StandScreen(props: StandProps) {
  const { subject, climb, choices, bpm } = props;
  const on = useStandScreen(props);
  const { asked, played, isPractice, practice, count, large, over, setOver, stand, takes } = on;
  const restIsDue = useRest(stand.isPlaying);
  const [pointed, setPointed] = useState<string | null>(null);
  const files = useFilesIn(on.filesOf, takes.show);
  const afterTake = takes.judged !== null && !stand.isPlaying && !takes.byEar.length;
  const places = afterTake ? takes.judged?.take.figures?.places : undefined;
  const off = useMemo(
    () => new Map(places?.filter((place) => place.outside).map((place) => [place.event, place])),
    [places],
  );
  if (!played)
    return asked.isError ? (
      <Problem error={asked.error} onRetry={() => void asked.refetch()} />
    ) : (
      <Loading what="the drill in seconds" />
    );
  const { reading } = played;
  const strokes = played.hands.length ? played.hands : NO_STROKES;
  const words = {
    choices,
    click: subject.click,
    onClick: props.onClick,
    refusal: refusalOf(asked.error),
    count,
    onCount: on.setCount,
    sound: on.sound,
    onSound: on.changeSound,
    by: on.hearing.by,
    devices: on.hearing.devices,
    onBy: on.hearing.setBy,
    playing: stand.isPlaying,
  };
  const rail = (
    <StandRail
      reading={reading}
      large={large && !afterTake}
      short={afterTake}
      hidden={on.isHidden}
      off={off}
      swings={on.written.drill.hands.kind === "by_place"}
      onLit={(events) => on.notation.current?.light(events)}
      ref={on.rail}
    />
  );
  return (
    <DropZone className="stand" onFiles={files.take}>
      <StandTop
        title={props.title}
        above={props.above}
        reading={reading}
        moment={stand.moment}
        passes={isPractice ? null : count.passes}
        large={large}
        onFigures={on.isSoundFirst ? on.showFigures : null}
        cues={cuesNow(stand.moment, played.cues, subject.drill)}
        meanwhile={choices.meanwhile.find((one) => one.value === count.meanwhile)?.why ?? ""}
        onSlower={on.slower}
        onFaster={on.faster}
        words={
          !on.isSetUp && (
            <div className="stand-words">
              <StandWords {...words} />
            </div>
          )
        }
        onSetUp={() => on.setOpen("set up")}
      />
      {!stand.isPlaying && (
        <HearingLine
          hearing={on.hearing}
          unheard={played.unheard}
          onPads={() => setOver("pads")}
          onMeasure={() => setOver("latency")}
        />
      )}
      {!afterTake && rail}
      {!afterTake && !on.isHidden && <Written {...on.written} ref={on.notation} />}
      {!stand.isPlaying && !afterTake && !on.isSetUp && (
        <Steps
          drill={subject.drill}
          choices={choices}
          layers={played.layers}
          practice={practice}
          onPractice={on.setPractice}
        />
      )}
      {practice.beat === "hidden" && (
        <FindTheBeat
          drill={subject.drill}
          part={on.part}
          bpm={practice.bpm ?? bpm}
          isPlaying={stand.isPlaying}
          within={stand.within}
        />
      )}
      {!stand.isPlaying &&
        played.performance.told.map((sentence) => (
          <p key={sentence} className="text-soft">
            {sentence}
          </p>
        ))}
      {isPractice && <InPractice {...props} on={on} />}
      {restIsDue && (
        <p role="status" className="bg-care text-care-text rounded-lg px-3 py-2 font-semibold">
          Twenty-five minutes of playing: rest for five. Wind players rest as long as they play.
        </p>
      )}
      {stand.message && (
        <p role="alert" className="bg-care text-care-text rounded-lg px-3 py-2 font-semibold">
          {stand.message}
        </p>
      )}
      {on.before && (
        <p>
          <button type="button" className="button" onClick={on.takeBack}>
            Back to {on.before.label} bpm
          </button>
        </p>
      )}
      {props.newer && (
        <p role="status" className="text-soft">
          Version {props.newer.version} of this drill is there now; here stands version {subject.version}.{" "}
          <button
            type="button"
            className="button button-small"
            onClick={() => {
              takes.clear();
              props.newer?.take();
            }}
          >
            Put version {props.newer.version} on the stand
          </button>
        </p>
      )}
      <FilesList files={files.files} />
      {stand.isPlaying ? (
        // What stands under the rail leaves its room, so that nothing moves when it begins.
        <div className="invisible">
          {!large && <BeforeTheTry climb={climb} studentId={subject.studentId} />}
        </div>
      ) : (
        <AfterTheTake
          subject={subject}
          climb={climb}
          choices={choices}
          takes={takes}
          rail={afterTake && (off.size > 0 || pointed === takes.judged?.take.id) ? rail : null}
          large={large}
          onFigures={on.isSoundFirst ? on.showFigures : null}
          onMoved={(moved) => {
            takes.clear();
            props.onMoved(moved);
          }}
          onRemedy={on.practiseRemedy}
          onBack={on.toTheDrill}
          onAgain={on.again}
          onRung={
            props.onRung &&
            ((to) => {
              takes.clear();
              return props.onRung?.(to) ?? false;
            })
          }
          onNote={(event) => {
            // The rail comes beside the figures once a note of it is asked for.
            flushSync(() => setPointed(takes.judged?.take.id ?? null));
            on.rail.current?.point(event);
          }}
        />
      )}
      <StandButtons
        playing={stand.isPlaying}
        onToggle={on.toggle}
        onTap={stand.tap}
        twoHands={reading.two_hands}
        isTapped={on.hearing.by.source === "taps" && on.hearing.by.standIn === null}
        muted={on.muted}
        onMuted={on.setMuted}
        practice={practice}
        onPractice={on.setPractice}
        loops={loopsOf(played)}
        large={large}
        onLarge={on.setLarge}
      />
      {on.isSetUp && <StandSetUp of={props} on={on} files={on.filesOf && files} words={words} />}
      <StandDialogs
        open={over}
        choices={choices}
        footSwitch={on.footSwitch}
        onSwitch={on.chooseSwitch}
        hearing={on.hearing}
        strokes={strokes}
        onClose={() => setOver(null)}
      />
    </DropZone>
  );
}

/** That it is practice, what it is turned through, and the way back. */
function InPractice({ climb, on }: StandProps & { on: ReturnType<typeof useStandScreen> }): ReactNode {
  const { practice, isMeasured } = on;
  const { remedy, circuit } = practice;
  return (
    <p className="text-soft" role="status">
      {circuit && (
        <>
          <Station circuit={circuit} />{" "}
        </>
      )}
      {remedy ? `${remedy.name}, against ${remedy.against}: ` : "Practice: "}
      it goes round until you stop it{" "}
      {isMeasured
        ? "and is measured, on a line of its own in the log; it moves no climb."
        : "and nothing is measured."}{" "}
      {remedy && (
        <button type="button" className="button button-small" onClick={on.toTheDrill}>
          {climb ? `Back to rung ${climb.rung}` : "Back to the drill"}
        </button>
      )}
    </p>
  );
}

/** What stands beside the word: the cue of the moment, all of them before it begins, and what to talk of meanwhile. */
function cuesNow(moment: Moment, cues: readonly string[], drill: Drill): string[] {
  const talk = drill.voice === "talk" && drill.prompt ? [`Talk of: ${drill.prompt}`] : [];
  if (moment.phase === "idle") return [...cues, ...talk];
  return [...(moment.cue ? [moment.cue] : []), ...talk];
}
