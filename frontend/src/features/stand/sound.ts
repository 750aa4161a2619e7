import type { Schemas } from "../../api/client";
import type { ClickRoles, Timbre } from "../../audio/sounds";
import { keep, kept } from "../../ui/kept";

/** How the stand sounds for a student: levels as shares of the loudest that is safe, and the click's timbre. */
export type Sound = {
  click: number;
  notes: number;
  backing: number;
  voice: number;
  timbre: Timbre;
  /** Level and sound of the click by its role, and whether a bar begins without a mark. */
  roles: ClickRoles;
  unmarked: boolean;
  /** Parts of the backing that sound. */
  parts: Schemas["PerformanceBody"]["backing"];
  /** Whether the count-in is spoken, and what is said from the first note on. */
  aloud: boolean;
  spoken: Schemas["Spoken"];
};

/** Nothing set otherwise: all at its full level, the count-in spoken. */
export const USUAL_SOUND: Sound = {
  click: 1,
  notes: 1,
  backing: 1,
  voice: 1,
  timbre: "beep",
  roles: {
    strong: { level: 1, timbre: null },
    plain: { level: 1, timbre: null },
    division: { level: 1, timbre: null },
  },
  unmarked: false,
  parts: [],
  aloud: true,
  spoken: { what: "nothing", words: "count" },
};
const key = (studentId: number | null) => `sound.${studentId ?? "nobody"}`;

/** How the stand is set for a student: as the studio keeps it, or as this browser did before; for nobody, this browser. */
export const soundFor = (studentId: number | null, ofStudio = ""): Sound => ({
  ...USUAL_SOUND,
  ...(parsed(ofStudio) ?? kept<Partial<Sound>>(key(studentId))),
});

/** Keeps it for nobody in this browser. */
export const keepSound = (sound: Sound): void => void keep(key(null), sound);

function parsed(text: string): Partial<Sound> | null {
  try {
    const found: unknown = text ? JSON.parse(text) : null;
    return typeof found === "object" ? found : null;
  } catch {
    return null;
  }
}
