import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Choices, type Climb, type Ear, type Judged, type KeptRemedy } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { MARK_WORDS } from "../../ui/marks";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";
import { WordButtons } from "../../ui/WordButtons";
import { ByEar } from "./ByEar";
import { Offers, type OffersProps } from "./Offers";

type Props = {
  judged: Judged;
  rung: number | null;
  choices: Choices;
  large: boolean;
  busy: boolean;
  onMoved: (climb: Climb) => void;
  onEar: (ear: Ear) => void;
  /** A remedy was taken: it goes on the stand. */
  onRemedy: (remedy: KeptRemedy) => void;
  /** Back from practice to the rung. */
  onBack: () => void;
} & OffersProps;

/** The word after a take: the fault first, what is well, and the press that follows, remedies or overrules it. */
export function TheWord(props: Props) {
  const { judged, rung, choices, large, busy, onMoved, onEar, onRemedy, onBack } = props;
  const { take, climb } = judged;
  // A rung may ask for a part of the drill: that is the climb itself, and no practice beside it.
  const isPart = take.part_name !== "" && take.rung === null;
  const counts = climb !== null && !isPart && rung === climb.rung;
  const good = take.mark === "clean";
  const [first, ...others] = take.says;
  return (
    <>
      <section className={`card-plain min-w-0 ${good ? "word-good" : "word-open"}`} aria-live="polite">
        <h2 className={`font-display !font-bold ${large ? "!text-4xl" : "!text-2xl"} word-heading`}>
          {take.heading}
        </h2>
        {first && <p className={large ? "text-2xl" : ""}>{first}</p>}
        {!large && others.length > 0 && (
          <ul className="mt-1 text-sm">
            {others.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        )}
        {take.machine && take.ear_by && take.machine !== take.mark && (
          <p className="text-soft text-sm">
            The ear of the {take.ear_by} counts; the machine said: {MARK_WORDS[take.machine].toLowerCase()}.
          </p>
        )}
        <div className="mt-2 space-y-2">
          {take.remedies.length > 0 && <Remedies judged={judged} onRemedy={onRemedy} />}
          {(take.mark === "none" || take.offers.some((offer) => offer.passes)) && (
            <Offers judged={judged} onAgain={props.onAgain} onRung={props.onRung} />
          )}
          {isPart && (
            <p>
              {take.part_name}: practice, on a line of its own in the log.{" "}
              {good && climb && !climb.remedy && `Clean: rung ${climb.rung} is offered again.`}{" "}
              <button type="button" className="button button-small" onClick={onBack}>
                {climb ? `Back to rung ${climb.rung}` : "Back to the drill"}
              </button>
            </p>
          )}
          {climb?.remedy && !isPart && (
            <p className="text-soft text-sm">This climb waits for its remedy: {climb.remedy.name}.</p>
          )}
          {climb && counts && (
            <>
              <p>{climb.word.sentence}</p>
              <WordButtons
                climb={climb}
                takeId={take.id}
                follow={climb.word.heading}
                quiet={take.remedies.length > 0}
                showKey
                onMoved={onMoved}
              />
            </>
          )}
          {climb && !counts && !isPart && (
            <p>The climb stands on rung {climb.rung}; this take is kept and does not move it.</p>
          )}
          {take.source !== "by_ear" &&
            (take.mark === "near" || take.mark === "none" ? (
              <ByEar busy={busy} heading="What does your ear say?" faults={choices.faults} onMark={onEar} />
            ) : (
              <details>
                <summary className="cursor-pointer text-primary font-semibold">My ear says otherwise</summary>
                <ByEar busy={busy} heading="How was it, by ear?" faults={choices.faults} onMark={onEar} />
              </details>
            ))}
        </div>
      </section>
      <Well well={take.well} />
    </>
  );
}

/** What was well, in words; a figure inside its own uncertainty is none. */
function Well({ well }: { well: readonly string[] }) {
  if (!well.length) return null;
  return (
    <section className="card-plain mt-3">
      <h2>What was well</h2>
      <ul>
        {well.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
    </section>
  );
}

function Remedies({ judged, onRemedy }: Pick<Props, "judged" | "onRemedy">) {
  const [bpm, setBpm] = useState("");
  const once = useOnce();
  const { take } = judged;
  const choose = useMutation({
    mutationFn: (key: string) => {
      const asked = { key, bpm };
      return api.takeRemedy(take.id, key, bpm.trim() || null, once.key(asked));
    },
    onSuccess: (kept) => {
      once.done();
      forgetWork();
      onRemedy(kept);
    },
  });
  const [first, ...others] = take.remedies;
  if (!first) return null;
  return (
    <div>
      <button
        type="button"
        className="button button-first"
        disabled={choose.isPending}
        onClick={() => choose.mutate(first.key)}
      >
        {first.name}
      </button>
      {/* Why is read, and not only found by a pointer that rests. */}
      <p className="text-soft text-sm mt-1">{first.why}</p>
      <details className="mt-1">
        <summary className="cursor-pointer text-primary font-semibold">Another remedy, another tempo</summary>
        <label className="block my-1">
          at{" "}
          <input
            className="brief-word w-16"
            inputMode="decimal"
            aria-label="tempo of the remedy in bpm"
            placeholder={first.bpm_label}
            value={bpm}
            onChange={(event) => setBpm(event.target.value)}
          />{" "}
          bpm
        </label>
        <ul className="flex flex-col gap-2">
          {others.map((one) => (
            <li key={one.name}>
              <button
                type="button"
                className="button button-small"
                disabled={choose.isPending}
                onClick={() => choose.mutate(one.key)}
              >
                {one.name}
              </button>{" "}
              <span className="text-soft text-sm">
                {one.why} Against: {one.against}.
              </span>
            </li>
          ))}
        </ul>
      </details>
      {choose.isError && <Problem error={choose.error} />}
    </div>
  );
}
