import { useState } from "react";
import { isAllHere, isHeld, isUnkept, useEntries } from "../api/outbox";
import { STUDIO, useAnotherStudio } from "../api/studio";
import { Tray } from "./Tray";

/** What the server has not got, said on every place until it has, or until someone has decided. */
export function OutboxLine() {
  const entries = useEntries().filter((one) => !isHeld(one));
  const isAnother = useAnotherStudio();
  const [open, setOpen] = useState(false);
  const own = entries.filter((one) => one.studio === STUDIO);
  const waiting = own.filter((one) => one.kind === "take" && one.state.is === "waiting");
  const takes = waiting.filter((one) => !isUnkept(one));
  const unkept = waiting.length - takes.length;
  const drafts = own.filter(
    (one) => one.kind === "draft" && one.state.is === "waiting" && one.state.tries > 0,
  );
  const refused = own.filter((one) => one.state.is === "refused");
  const elsewhere = entries.filter((one) => one.studio !== STUDIO);
  const said = [
    takes.length > 0 &&
      `${takes.length === 1 ? "One take is" : `${takes.length} takes are`} kept on this computer, and sent as soon as the server answers.`,
    drafts.length > 0 &&
      `${drafts.length === 1 ? "A change of a drill waits" : `Changes of ${drafts.length} drills wait`} to be sent.`,
    unkept > 0 &&
      `${unkept === 1 ? "One take waits" : `${unkept} takes wait`} in this page alone, and will be sent as soon as the server answers.`,
    own.some(isUnkept) && "This browser has no room to keep it: do not close this page before it is sent.",
    refused.length > 0 &&
      `${refused.length === 1 ? "One thing was" : `${refused.length} things were`} not taken by the server.`,
    elsewhere.length > 0 &&
      `${elsewhere.length === 1 ? "One thing waits" : `${elsewhere.length} things wait`} here for another studio.`,
  ].filter(Boolean);
  if (isAnother)
    return (
      <p role="alert" className="bg-care text-care-text px-6 py-1.5 font-semibold">
        Another studio answers here now than the one that this page belongs to.{" "}
        {isAllHere()
          ? "What was not sent stays on this computer."
          : "This browser had no room for what was not sent: leaving this page loses it."}{" "}
        <button type="button" className="button button-small" onClick={() => window.location.assign("/")}>
          Go on with the one that is here
        </button>
      </p>
    );
  return (
    <>
      {said.length > 0 && (
        <div className="bg-care text-care-text px-6 py-1.5 font-semibold">
          <span role="status">{said.join(" ")}</span>{" "}
          {refused.length + elsewhere.length > 0 && (
            <button type="button" className="button button-small" onClick={() => setOpen(true)}>
              Look at it
            </button>
          )}
        </div>
      )}
      {open && <Tray entries={[...refused, ...elsewhere]} onClose={() => setOpen(false)} />}
    </>
  );
}
