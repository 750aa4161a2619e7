import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useNavigate, useParams } from "react-router";
import { type Climb, files } from "../../api/client";
import { choicesQuery, climbQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Menu } from "../../ui/Menu";
import { takeOffered } from "../../ui/offered";
import { PlayAlong } from "../../ui/PlayAlong";
import { Problem } from "../../ui/Problem";
import { useLetters } from "../../ui/useLetters";
import { WordButtons } from "../../ui/WordButtons";
import { ChangeLadder } from "./ChangeLadder";
import { ChangeLimits } from "./ChangeLimits";
import { ClimbPicture } from "./ClimbPicture";
import { NewerVersion } from "./NewerVersion";
import { Remedies } from "./Remedies";
import { RungTable } from "./RungTable";
import { SetOf } from "./SetOf";

/** One climb: from here to the target, tread by tread. */
export function ClimbPage() {
  const id = Number(useParams().climbId);
  const climb = useQuery(climbQuery(id));
  if (climb.isPending) return <Loading what="the climb" />;
  if (climb.isError) return <Problem error={climb.error} onRetry={() => void climb.refetch()} />;
  return <OneClimb climb={climb.data} />;
}

function OneClimb({ climb }: { climb: Climb }) {
  const navigate = useNavigate();
  const choices = useQuery(choicesQuery);
  const [making, setMaking] = useState(false);
  const at = climb.treads[climb.rung - 1];
  const due = at?.click_words;
  useLetters("p", () => void navigate(`/stand/climb/${climb.id}`));
  useHotkeys("enter", (event) => {
    if (event.target instanceof HTMLElement && event.target.closest("a, button, summary")) return;
    takeOffered();
  });
  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_19rem]">
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-3 mb-2">
          <h1 className="text-2xl sm:text-3xl font-extrabold flex-1 min-w-60 break-words">
            <Link to={`/students/${climb.student.id}`} className="no-underline hover:underline">
              {climb.student.name}
            </Link>
            : {climb.title}
          </h1>
          <Menu>
            <Link className="button" to={`/bench/${climb.drill_id}?climb=${climb.id}`}>
              The drill
            </Link>
            <Link className="button" to={`/climbs/${climb.id}/sheet`}>
              Hand-out
            </Link>
            <a className="button" href={files.practice([climb.id])}>
              Practice file
            </a>
            <button type="button" className="button" onClick={() => setMaking(true)}>
              Play-along file
            </button>
          </Menu>
          <Link className="button button-first" to={`/stand/climb/${climb.id}`}>
            Put on the stand <Key name="P" />
          </Link>
        </div>
        <PlanSentence climb={climb} />
        <ClimbPicture climb={climb} />
        <NewerVersion climb={climb} />
        {climb.set_key && <SetOf climb={climb} />}
        <RungTable treads={climb.treads} sign={climb.sign} />
        <ChangeLimits key={`limits ${JSON.stringify(climb.plan)}`} climb={climb} />
        <ChangeLadder key={JSON.stringify(climb.plan)} climb={climb} />
      </div>
      {making && choices.data && (
        <PlayAlong
          drillId={climb.drill_id}
          version={climb.version}
          treads={climb.treads}
          rung={climb.rung}
          choices={choices.data}
          onClose={() => setMaking(false)}
        />
      )}
      <aside className="space-y-4 min-w-0" aria-label="Where the climb stands">
        <section className="card-plain">
          <h2>
            Now: rung {climb.rung}, {climb.sign} = {climb.bpm_label}
          </h2>
          <p className="mb-3">
            {at?.words && <>{at.words}, </>}
            {climb.nps} notes a second
            {climb.band_place && <>, {climb.band_place}</>}
            {due && <>, the click {due}</>}. {climb.word.sentence}
          </p>
          <WordButtons climb={climb} takeId={null} follow={climb.word.heading} showKey />
        </section>
        <Remedies climb={climb} />
        <section className="card-plain bg-care text-care-text">
          <h2 className="!text-care-text">Care</h2>
          {climb.cautions.map((line) => (
            <p key={line} className="font-semibold mb-1">
              {line}
            </p>
          ))}
          <p>
            Stop at pain, tingling, numbness or weakness, and do not train through it; see a doctor or a
            performers’ clinic. Rest 5 minutes after 25. No records at the end of a session.
          </p>
        </section>
      </aside>
    </div>
  );
}

function PlanSentence({ climb }: { climb: Climb }) {
  const choices = useQuery(choicesQuery);
  const { plan, treads } = climb;
  const why = (value: string) => choices.data?.evenness.find((one) => one.value === value)?.why;
  return (
    <div className="mb-3">
      <p className="text-lg">
        From <strong>{treads[0]?.bpm_label}</strong> to <strong>{climb.target_words}</strong>
        {plan.target.kind === "bpm" && <> ({treads.at(-1)?.nps} notes a second)</>}. {climb.rule_words}{" "}
        {climb.moving_words}
      </p>
      <p className="text-soft">
        Held to {climb.held_to}. {why(plan.evenness)}
      </p>
    </div>
  );
}
