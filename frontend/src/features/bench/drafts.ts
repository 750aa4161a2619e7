import type { Drill } from "../../api/client";
import { keep, kept } from "../../ui/kept";

/** A drill as it stands on the bench, before the server has it. */
export type Draft = { drill: Drill; basedOn: number };

const key = (id: number) => `ripresa.draft.${id}`;

export const draftOf = (id: number): Draft | null => kept<Draft>(key(id));
export const keepDraft = (id: number, draft: Draft): void => keep(key(id), draft);
export const dropDraft = (id: number): void => keep(key(id), null);
