import { Refusal } from "../api/client";

/** What a brief shows of an error: its sentence, and the field it blames. */
export function refusalOf(error: Error | null): { message: string; field: string | null } | null {
  if (!error) return null;
  return { message: error.message, field: error instanceof Refusal ? error.field : null };
}
