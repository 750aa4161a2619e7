import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useParams } from "react-router";
import type { Choices, Climb, Drill, Schemas } from "../../api/client";
import { choicesQuery, climbQuery, drillQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { StandScreen } from "./StandScreen";

/** A climb on the stand: the drill at the tempo of its rung. */
export function ClimbOnStand() {
  const id = Number(useParams().climbId);
  const climb = useQuery(climbQuery(id));
  const choices = useQuery(choicesQuery);
  const drill = useQuery({
    ...drillQuery(climb.data?.drill_id ?? 0, climb.data?.version),
    enabled: climb.data !== undefined,
  });
  const failed =
    (!climb.data && climb.error) || (!choices.data && choices.error) || (!drill.data && drill.error);
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!climb.data || !choices.data || !drill.data) return <Loading what="the climb" />;
  return <Standing key={id} climb={climb.data} kept={drill.data} choices={choices.data} />;
}

type Props = { climb: Climb; kept: Schemas["DrillShape"]; choices: Choices };

function Standing({ climb, kept, choices }: Props) {
  // Another rung may be tried without moving the climb.
  const [tried, setTried] = useState<number | null>(null);
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
      click,
    }),
    [kept, climb.student.id, climb.id, number, click],
  );
  // By number: with all clicks at each tempo several rungs have one tempo.
  const stepTo = (rung: number) =>
    climb.treads.some((tread) => tread.number === rung) ? () => setTried(rung) : null;
  return (
    <StandScreen
      subject={subject}
      climb={climb}
      title={`${climb.student.name}, ${climb.title}`}
      above={
        <>
          rung {number} of {climb.treads.length}
          {number !== climb.rung && ` (the climb stands on ${climb.rung})`}
        </>
      }
      choices={choices}
      bpm={at?.bpm ?? climb.bpm}
      steps={{ slower: stepTo(number - 1), faster: stepTo(number + 1) }}
      onTempo={() => setTried(number)}
      onClick={setClick}
      onMoved={() => {
        setTried(null);
        setClick(null);
      }}
    />
  );
}
