import { useEffect, useState } from "react";
import { Dialog } from "../../ui/Dialog";
import { Key } from "../../ui/Key";
import { switchName } from "./footSwitch";

type Props = { chosen: string; onChosen: (key: string) => void; onClose: () => void };

/** Keys that have work of their own here, or that move through the page. */
const TAKEN = new Set(["Tab", "Escape", "Enter", "Shift", "Control", "Alt", "Meta", "CapsLock"]);
const OWN = /^[1-6unpjftsmlcho?[\]]$/i;

/** Learns which key a foot switch sends, by pressing it. */
export function FootSwitch({ chosen, onChosen, onClose }: Props) {
  const [refused, setRefused] = useState("");
  useEffect(() => {
    const learn = (event: KeyboardEvent) => {
      if (TAKEN.has(event.key) && event.key !== "Enter") return;
      event.preventDefault();
      event.stopPropagation();
      if (event.key === "Enter" || OWN.test(event.key)) {
        setRefused(
          `${switchName(event.key)} has work of its own here. Set the switch to another key, such as Page Down.`,
        );
        return;
      }
      setRefused("");
      onChosen(event.key);
    };
    window.addEventListener("keydown", learn, true);
    return () => window.removeEventListener("keydown", learn, true);
  }, [onChosen]);
  return (
    <Dialog title="Foot switch" onClose={onClose}>
      <p>
        Any switch that sends a key will do. Press it now, and it is learnt. At present:{" "}
        <Key name={switchName(chosen)} />.
      </p>
      <p className="mt-2">
        A short press starts and stops. A long one, about a second, takes the step that is offered.
      </p>
      {refused && (
        <p role="alert" className="text-error font-semibold mt-2">
          {refused}
        </p>
      )}
    </Dialog>
  );
}
