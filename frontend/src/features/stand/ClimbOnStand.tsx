import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Choices, Climb, Drill, KeptRemedy, Schemas } from "../../api/client";
import { choicesQuery, climbDrillQuery, climbQuery, remedyQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import type { Practice } from "./practice";
import { StandScreen } from "./StandScreen";
import { useHeld, useStill } from "./useHeld";
import type { StandProps } from "./useStandScreen";

/** A climb on the stand: the drill at the tempo of its rung. */
export function ClimbOnStand() {
  const id = Number(useParams().climbId);
  return <OnStand key={id} id={id} />;
}

function OnStand({ id }: { id: number }) {
  const [search] = useSearchParams();
  const asked = Number(search.get("remedy") ?? 0);
  const climb = useQuery(climbQuery(id));
  const remedy = useQuery({ ...remedyQuery(asked), enabled: asked > 0 });
  const choices = useQuery(choicesQuery);
  const drill = useQuery({
    ...climbDrillQuery(id, climb.data?.version),
    enabled: climb.data !== undefined,
  });
  const { held, newer, isBusy, setBusy } = useHeld(drill.data);
  const standing = useStill(climb.data, isBusy);
  const failed = (!standing && climb.error) || (!choices.data && choices.error) || (!held && drill.error);
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!standing || !held || !choices.data) return <Loading what="the climb" />;
  if (remedy.isLoading) return <Loading what="the remedy" />;
  const kept = remedy.data?.climb_id === id ? remedy.data : null;
  return (
    <Standing
      key={`${id} ${search}`}
      climb={standing}
      kept={held}
      newer={newer}
      onBusy={setBusy}
      choices={choices.data}
      remedy={kept}
      tried={{
        bpm: search.get("bpm"),
        only: search.get("only"),
        part: search.get("part") ?? "everything",
        step: search.get("step") as Practice["step"],
      }}
      startsAt={Number(search.get("rung") ?? 0) || null}
    />
  );
}

type Props = {
  climb: Climb;
  kept: Schemas["DrillShape"];
  choices: Choices;
  remedy: KeptRemedy | null;
  newer: StandProps["newer"];
  onBusy: StandProps["onBusy"];
  tried: Pick<Practice, "bpm" | "only" | "part" | "step">;
  /** Another rung to try first. */
  startsAt: number | null;
};

/** The rung whose tempo lies nearest to one that was played, in bpm. */
function nearestRung(climb: Climb, bpm: string): number | null {
  const away = (tread: Climb["treads"][number]) => Math.abs(Number(tread.bpm_label) - Number(bpm));
  const told = climb.treads.filter((tread) => Number.isFinite(away(tread)));
  return told.length ? told.reduce((best, one) => (away(one) < away(best) ? one : best)).number : null;
}

function Standing({ climb, kept, choices, remedy, newer, onBusy, tried: asked, startsAt }: Props) {
  // Another rung may be tried without moving the climb.
  const [tried, setTried] = useState<number | null>(startsAt);
  // The teacher's own choice for now; else the plan of the rung, else that of the drill.
  const [chosen, setClick] = useState<Drill["click"] | null>(null);
  const number = tried ?? climb.rung;
  const at = climb.treads.find((tread) => tread.number === number) ?? climb.treads[0];
  const click = chosen ?? at?.click ?? kept.drill.click;
  const subject = useMemo(
    () => ({
      drill: kept.drill,
      drillId: kept.id,
      version: kept.version,
      studentId: climb.student.id,
      climbId: climb.id,
      rung: number,
      part: at?.part ?? null,
      click,
    }),
    [kept, climb.student.id, climb.id, number, at?.part, click],
  );
  // By number: with all clicks at each tempo several rungs have one tempo.
  const stepTo = (rung: number) =>
    climb.treads.some((tread) => tread.number === rung) ? () => setTried(rung) : null;
  return (
    <StandScreen
      subject={subject}
      climb={climb}
      title={
        <h1>
          <Link className="text-link" to={`/students/${climb.student.id}`}>
            {climb.student.name}
          </Link>
          {" · "}
          <Link className="text-link" to={`/climbs/${climb.id}`}>
            {climb.title}
          </Link>
          {" · "}
          <Link className="text-link" to={`/bench/${kept.id}?climb=${climb.id}`}>
            the drill
          </Link>
        </h1>
      }
      above={
        <>
          rung {number} of {climb.treads.length}
          {at?.words && `, ${at.words}`}
          {number !== climb.rung && ` (the climb stands on ${climb.rung})`}
        </>
      }
      choices={choices}
      stand={climb.student.details.stand}
      bpm={at?.bpm ?? climb.bpm}
      steps={{ slower: stepTo(number - 1), faster: stepTo(number + 1) }}
      onTempo={() => setTried(number)}
      onClick={setClick}
      onMoved={() => {
        setTried(null);
        setClick(null);
      }}
      newer={newer}
      onBusy={onBusy}
      remedy={remedy}
      tried={asked}
      onRung={(bpm) => {
        const rung = nearestRung(climb, bpm);
        if (rung !== null) setTried(rung);
        return rung !== null;
      }}
    />
  );
}
