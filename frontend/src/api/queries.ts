/** Keys and fetches of server data, together, once. */
import { QueryClient, queryOptions } from "@tanstack/react-query";
import {
  api,
  type Drill,
  type LogFilter,
  type Overrides,
  type Plan,
  type Refusal,
  type Schemas,
  type SetupKey,
} from "./client";

/** The server is this computer: whether that is on a network says nothing about it, so that it is always asked. */
const networkMode = "always";

export const queryClient = new QueryClient({
  defaultOptions: {
    mutations: { networkMode },
    queries: {
      networkMode,
      staleTime: 5_000,
      retry: (count, error) => (error as Refusal).isLost && count < 2,
      refetchOnWindowFocus: true,
    },
  },
});

export const choicesQuery = queryOptions({
  queryKey: ["choices"],
  queryFn: api.choices,
  staleTime: Number.POSITIVE_INFINITY,
});
export const deskQuery = queryOptions({ queryKey: ["desk"], queryFn: api.desk });
export const studentsQuery = queryOptions({ queryKey: ["students"], queryFn: () => api.students() });
export const putAwayQuery = queryOptions({
  queryKey: ["students", "put away"],
  queryFn: () => api.students(true),
});
export const studentQuery = (id: number, climbId?: number) =>
  queryOptions({ queryKey: ["students", id, climbId ?? "last"], queryFn: () => api.student(id, climbId) });
export const whatIfQuery = (id: number, climbId: number) =>
  queryOptions({ queryKey: ["students", id, "what if", climbId], queryFn: () => api.whatIf(id, climbId) });
export const recapQuery = (id: number) =>
  queryOptions({ queryKey: ["students", id, "recap"], queryFn: () => api.recap(id), staleTime: 0 });
export const groupsQuery = queryOptions({ queryKey: ["groups"], queryFn: api.groups });
export const groupQuery = (id: number) =>
  queryOptions({ queryKey: ["groups", id], queryFn: () => api.group(id) });
export const setupQuery = (key: SetupKey) =>
  queryOptions({ queryKey: ["setups", key], queryFn: () => api.setup(key) });
export const setupsQuery = queryOptions({ queryKey: ["setups", "all"], queryFn: api.setups });
export const recordingsQuery = (studentId?: number) =>
  queryOptions({ queryKey: ["recordings", studentId ?? "all"], queryFn: () => api.recordings(studentId) });
export const settingsQuery = queryOptions({ queryKey: ["settings"], queryFn: api.settings });
export const climbSetQuery = (setKey: string) =>
  queryOptions({ queryKey: ["climbs", "set", setKey], queryFn: () => api.climbSet(setKey) });
export const climbDrillQuery = (id: number, version: number | undefined) =>
  queryOptions({ queryKey: ["climbs", id, "drill", version], queryFn: () => api.drillOfClimb(id) });
export const drillsQuery = queryOptions({ queryKey: ["drills"], queryFn: () => api.drills() });
export const archiveQuery = queryOptions({
  queryKey: ["drills", "archived"],
  queryFn: () => api.drills(true),
});
export const shelfQuery = queryOptions({
  queryKey: ["shelf"],
  queryFn: api.shelf,
  staleTime: Number.POSITIVE_INFINITY,
});
export const climbsQuery = (words = "") =>
  queryOptions({ queryKey: ["climbs", "search", words], queryFn: () => api.climbs(words) });
export const climbQuery = (id: number) =>
  queryOptions({ queryKey: ["climbs", id], queryFn: () => api.climb(id) });
export const mapQuery = (climbId: number) =>
  queryOptions({ queryKey: ["climbs", climbId, "map"], queryFn: () => api.map(climbId) });
export const drillQuery = (id: number, version?: number) =>
  queryOptions({ queryKey: ["drills", id, version ?? "latest"], queryFn: () => api.drill(id, version) });
export const logQuery = (filter: LogFilter) =>
  queryOptions({ queryKey: ["log", filter], queryFn: () => api.log(filter) });
export const takeQuery = (id: string) =>
  queryOptions({ queryKey: ["takes", "one", id], queryFn: () => api.take(id) });
export const sumsQuery = (asked: Record<string, string>) =>
  queryOptions({ queryKey: ["sums", asked], queryFn: () => api.sums(asked), retry: false });
export const readingQuery = (drill: Drill, bpm: string | null = null) =>
  queryOptions({
    queryKey: ["reading", drill, bpm],
    queryFn: ({ signal }) => api.reading(drill, bpm, { signal }),
    staleTime: Number.POSITIVE_INFINITY,
    // Rows that did not change are the same already: nothing has to be compared value by value.
    structuralSharing: false,
    gcTime: 60_000,
  });
export const sayQuery = (text: string, drill: Drill | null) =>
  queryOptions({
    queryKey: ["say", text, drill],
    queryFn: ({ signal }) => api.say({ text, drill }, { signal }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: false,
  });
export const writtenQuery = (body: Schemas["WrittenBody"]) =>
  queryOptions({
    queryKey: ["written", body],
    queryFn: ({ signal }) => api.written(body, { signal }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: false,
  });
export const sheetPreviewQuery = (body: Schemas["SheetBody"]) =>
  queryOptions({
    queryKey: ["sheets", "preview", body],
    queryFn: ({ signal }) => api.previewSheet(body, { signal }),
    retry: false,
  });
export const sheetsQuery = (of: { climb_id?: number; drill_id?: number }) =>
  queryOptions({ queryKey: ["sheets", "issued", of], queryFn: () => api.sheets(of) });
export const liesQuery = (drill: Drill) =>
  queryOptions({
    queryKey: ["written", "lies", drill],
    queryFn: ({ signal }) => api.lies(drill, { signal }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: false,
  });
export const performanceQuery = (body: Schemas["PerformanceBody"]) =>
  queryOptions({
    queryKey: ["performance", body],
    queryFn: ({ signal }) => api.performance(body, { signal }),
    staleTime: Number.POSITIVE_INFINITY,
    structuralSharing: false,
  });
export const ladderQuery = (drillId: number, plan: Plan, overrides: Overrides | null = null) =>
  queryOptions({
    queryKey: ["ladder", drillId, plan, overrides],
    queryFn: () => api.ladder(drillId, plan, overrides),
    staleTime: Number.POSITIVE_INFINITY,
  });
export const comparedQuery = (drill: Drill, bpm: string) =>
  queryOptions({
    queryKey: ["compared", drill, bpm],
    queryFn: () => api.compare({ drill, other: null, bpm }),
  });

export const versionsQuery = (id: number) =>
  queryOptions({ queryKey: ["drills", id, "versions"], queryFn: () => api.versions(id) });
export const takesQuery = (climbId: number) =>
  queryOptions({ queryKey: ["takes", climbId], queryFn: () => api.takes({ climb_id: climbId, most: 20 }) });

export const takeAgainQuery = (id: string) =>
  queryOptions({ queryKey: ["takes", "again", id], queryFn: () => api.takeAgain(id) });
export const remediesQuery = (climbId: number) =>
  queryOptions({ queryKey: ["remedies", climbId], queryFn: () => api.remedies({ climb_id: climbId }) });
export const remedyQuery = (id: number) =>
  queryOptions({ queryKey: ["remedies", "one", id], queryFn: () => api.remedy(id) });

/** A version of a drill that was just kept: the newest, wherever it is shown. */
export function noteSaved(saved: Schemas["DrillShape"]): void {
  queryClient.setQueryData(["drills", saved.id, "latest"], saved);
  void queryClient.invalidateQueries({ queryKey: ["drills"], exact: true });
  void queryClient.invalidateQueries({ queryKey: ["drills", saved.id, "versions"] });
}

/** What has to be asked again after a take, a move or a change of a drill. */
export function forgetWork(): void {
  for (const key of ["desk", "climbs", "drills", "log", "students", "takes", "remedies", "groups"]) {
    void queryClient.invalidateQueries({ queryKey: [key] });
  }
}
