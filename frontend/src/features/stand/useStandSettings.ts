import { useEffect, useRef, useState } from "react";
import { api, type StudentDetails } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { keepSwitch, keptSwitch } from "./footSwitch";
import { keepSound, type Sound, soundFor } from "./sound";

type Stand = StudentDetails["stand"];
/** How long a slider rests before it is kept, in ms. */
const REST = 600;

/** Sound and foot switch of the stand: a student’s are kept in the studio, nobody’s in this browser. */
export function useStandSettings(studentId: number | null, stand: Stand | null) {
  const [sound, setSound] = useState(() => soundFor(studentId, stand?.sound));
  const [footSwitch, setFootSwitch] = useState(() => stand?.foot_switch || keptSwitch());
  const [of, setOf] = useState(studentId);
  const latest = useRef(stand);
  if (of !== studentId) {
    setOf(studentId);
    setSound(soundFor(studentId, stand?.sound));
    setFootSwitch(stand?.foot_switch || keptSwitch());
    latest.current = stand;
  }
  const timer = useRef(0);
  useEffect(() => () => window.clearTimeout(timer.current), []);
  const keepStand = (changed: Partial<Stand>) => {
    if (studentId === null || !latest.current) return;
    latest.current = { ...latest.current, ...changed };
    const wanted = latest.current;
    window.clearTimeout(timer.current);
    // What the server cannot take now still sounds here.
    timer.current = window.setTimeout(() => {
      api.keepStand(studentId, wanted).then(forgetWork, () => {});
    }, REST);
  };
  return {
    sound,
    footSwitch,
    changeSound: (changed: Sound) => {
      setSound(changed);
      if (studentId === null) keepSound(changed);
      else keepStand({ sound: JSON.stringify(changed) });
    },
    chooseSwitch: (key: string) => {
      setFootSwitch(key);
      keepSwitch(key);
      keepStand({ foot_switch: key });
    },
  };
}
