import { type ReactNode, useMemo } from "react";
import type { Drill } from "../../api/client";
import { FilesIn } from "../../ui/FilesIn";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { WrittenOut } from "../../ui/written/WrittenOut";
import { AfterTheTake } from "./AfterTheTake";
import { switchName } from "./footSwitch";
import { HearingLine } from "./hearing/HearingLine";
import { PracticeWords } from "./PracticeWords";
import type { Moment } from "./runs";
import { StandButtons } from "./StandButtons";
import { StandDialogs } from "./StandDialogs";
import { StandFolds } from "./StandFolds";
import { StandRail } from "./StandRail";
import { StandTop } from "./StandTop";
import { StandWords } from "./StandWords";
import { useRest } from "./useRest";
import { type StandProps, useStandScreen } from "./useStandScreen";

const NO_STROKES: readonly string[] = ["R", "L"];

/** The stand: where a drill is played, heard and measured. */
export function StandScreen(props: StandProps) {
  const { subject, climb, choices, bpm, onTempo } = props;
  const on = useStandScreen(props);
  const { asked, played, isPractice, practice, count, large, open, setOpen, stand, takes } = on;
  const restIsDue = useRest(stand.isPlaying);
  const afterTake = takes.judged !== null && !stand.isPlaying;
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
  return (
    <div className="flex flex-col gap-3" data-playing={stand.isPlaying || undefined}>
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
        words={
          <StandWords
            choices={choices}
            click={subject.click}
            onClick={props.onClick}
            refusal={refusalOf(asked.error)}
            count={count}
            onCount={on.setCount}
            sound={on.sound}
            onSound={on.changeSound}
            by={on.hearing.by}
            devices={on.hearing.devices}
            onBy={on.hearing.setBy}
            playing={stand.isPlaying}
          />
        }
      />
      <HearingLine
        hearing={on.hearing}
        unheard={played.unheard}
        playing={stand.isPlaying}
        onPads={() => setOpen("pads")}
        onMeasure={() => setOpen("latency")}
      />
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
      {!on.isHidden && <WrittenOut {...on.written} ref={on.notation} />}
      {/* After a take what it measured needs the room: what is set before one is folded away. */}
      <Folded when={afterTake} name="Practice, sound and tempo">
        <PracticeWords
          drill={subject.drill}
          drillId={subject.drillId}
          version={subject.version}
          bpm={practice.bpm ?? bpm}
          part={on.part}
          isPlaying={stand.isPlaying}
          within={stand.within}
          choices={choices}
          performance={played}
          practice={practice}
          large={large}
          onPractice={on.setPractice}
        />
        {played.performance.told.map((sentence) => (
          <p key={sentence} className="text-soft">
            {sentence}
          </p>
        ))}
        {!large && (
          <StandFolds
            choices={choices}
            performance={played}
            sound={on.sound}
            onSound={on.changeSound}
            bpm={bpm}
            practice={practice}
            typed={climb !== null}
            onTempo={(to, divide) => {
              // On a climb another tempo is tried beside its rungs; the rung itself ends that.
              on.setPractice({ ...practice, divide, bpm: climb && to !== bpm ? to : null });
              if (!climb) onTempo(to);
            }}
            latency={
              on.hearing.by.source === "by_ear" || on.hearing.by.standIn !== null
                ? null
                : { setup: on.hearing.setup, onMeasure: () => setOpen("latency") }
            }
            footSwitch={{ name: switchName(on.footSwitch), onChoose: () => setOpen("switch") }}
          />
        )}
        {!large && !stand.isPlaying && on.filesOf && <FilesIn of={on.filesOf} onJudged={takes.show} />}
      </Folded>
      {isPractice && (
        <p className="text-soft" role="status">
          {practice.remedy ? `${practice.remedy.name}, against ${practice.remedy.against}: ` : "Practice: "}
          it goes round until you stop it{" "}
          {on.isMeasured
            ? "and is measured, on a line of its own in the log; it moves no climb."
            : "and nothing is measured."}{" "}
          {practice.remedy && (
            <button type="button" className="button button-small" onClick={on.toTheDrill}>
              {climb ? `Back to rung ${climb.rung}` : "Back to the drill"}
            </button>
          )}
        </p>
      )}
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
      <StandButtons
        playing={stand.isPlaying}
        onToggle={on.toggle}
        onTap={stand.tap}
        twoHands={reading.two_hands}
        onSlower={on.slower}
        onFaster={on.faster}
        muted={on.muted}
        onMuted={on.setMuted}
        large={large}
        onLarge={on.setLarge}
      />
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
      <AfterTheTake
        subject={subject}
        climb={climb}
        choices={choices}
        takes={takes}
        playing={stand.isPlaying}
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
        onNote={(event) => on.rail.current?.point(event)}
      />
      <StandDialogs
        open={open}
        choices={choices}
        footSwitch={on.footSwitch}
        onSwitch={on.chooseSwitch}
        hearing={on.hearing}
        strokes={strokes}
        onClose={() => setOpen(null)}
      />
    </div>
  );
}

/** What stands beside the word: the cue of the moment, all of them before it begins, and what to talk of meanwhile. */
function cuesNow(moment: Moment, cues: readonly string[], drill: Drill): string[] {
  const talk = drill.voice === "talk" && drill.prompt ? [`Talk of: ${drill.prompt}`] : [];
  if (moment.phase === "idle") return [...cues, ...talk];
  return [...(moment.cue ? [moment.cue] : []), ...talk];
}

/** What it holds, or a line that opens it. */
function Folded({ when, name, children }: { when: boolean; name: string; children: ReactNode }) {
  if (!when) return <div className="flex flex-col gap-3">{children}</div>;
  return (
    <details>
      <summary className="cursor-pointer text-primary font-semibold">{name}</summary>
      <div className="flex flex-col gap-3 mt-2">{children}</div>
    </details>
  );
}
