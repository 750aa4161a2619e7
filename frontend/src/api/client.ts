/** The only place that fetches. Types come from the API's own description. */
import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { noteAnotherStudio, ofStudio, STUDIO_HEADER } from "./studio";
import { type Reading, type Score, unpackReading, unpackRow, unpackScore } from "./unpack";

export type Schemas = components["schemas"];
export type Drill = Schemas["Drill"];
export type { Reading, Row } from "./unpack";
export type Climb = Schemas["ClimbShape"];
export type Tread = Schemas["TreadShape"];
export type Plan = Schemas["ClimbPlan"];
export type Take = Schemas["TakeShape"];
export type TakeBody = Schemas["TakeBody"];
export type Judged = Schemas["JudgedTake"];
export type Setup = Schemas["SetupShape"];
/** What tells one set-up from another. */
export type SetupKey = paths["/api/setups/known"]["get"]["parameters"]["query"];
export type HeardNote = Schemas["NoteShape"];
export type Ear = Schemas["Ear"];
export type Part = Schemas["Part"];
export type KeptRemedy = Schemas["KeptRemedyShape"];
export type Performance = Omit<Schemas["PerformanceShape"], "performance" | "reading"> & {
  performance: Score;
  reading: Reading;
};
export type Choice = Schemas["Choice"];
export type Choices = Schemas["Choices"];
export type Student = Schemas["StudentShape"];
export type StudentDetails = Schemas["StudentDetails"];
export type StudentPage = Schemas["StudentPageShape"];
export type PracticePlan = Schemas["PracticePlan"];
export type Group = Schemas["StudentGroupShape"];
export type GroupDetails = Schemas["GroupDetails"];
export type Overrides = Schemas["Overrides"];
export type LogFilter = NonNullable<paths["/api/log"]["get"]["parameters"]["query"]>;
export type Mark = Take["mark"];

/** A refusal, or a server that does not answer: a sentence to show as it stands. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly field: string | null,
    readonly status: number,
  ) {
    super(message);
  }

  /** Whether the server was not reached at all, so that trying again later makes sense. */
  get isLost(): boolean {
    return this.status === 0 || this.status >= 500;
  }
}

const client = createClient<paths>({
  baseUrl: "/",
  headers: STUDIO_HEADER,
  fetch: (request: Request) =>
    fetch(request).catch(() => {
      throw new Refusal("The server does not answer. What is loaded goes on; takes are kept here.", null, 0);
    }),
});

type Answer<T> = { data?: T; error?: unknown; response: Response };

async function taken<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (data !== undefined && response.ok) return data;
  const problem = error as { message?: string; field?: string | null } | undefined;
  if (response.status === 409 && problem?.field === "studio") noteAnotherStudio();
  throw new Refusal(
    problem?.message ?? "The server gave no sensible answer. Try again.",
    problem?.field ?? null,
    response.status,
  );
}

type Abort = { signal?: AbortSignal };

export const api = {
  choices: () => taken(client.GET("/api/choices")),
  desk: () => taken(client.GET("/api/desk")),

  students: (put_away = false) => taken(client.GET("/api/students", { params: { query: { put_away } } })),
  student: (id: number, climbId?: number) =>
    taken(
      client.GET("/api/students/{student_id}", {
        params: { path: { student_id: id }, query: climbId ? { climb_id: climbId } : {} },
      }),
    ),
  changeStudent: (id: number, details: StudentDetails, basedOn: number) =>
    taken(
      client.PUT("/api/students/{student_id}", {
        params: { path: { student_id: id } },
        body: { details, based_on: basedOn },
      }),
    ),
  putAway: (id: number, putAway: boolean) =>
    taken(
      client.PUT("/api/students/{student_id}/put-away", {
        params: { path: { student_id: id } },
        body: { put_away: putAway },
      }),
    ),
  deleteStudent: (id: number) =>
    taken(client.DELETE("/api/students/{student_id}", { params: { path: { student_id: id } } })),
  keepPlan: (id: number, plan: PracticePlan | null, basedOn: number) =>
    taken(
      client.PUT("/api/students/{student_id}/plan", {
        params: { path: { student_id: id } },
        body: { plan, based_on: basedOn },
      }),
    ),
  keepStand: (id: number, stand: StudentDetails["stand"]) =>
    taken(
      client.PUT("/api/students/{student_id}/stand", {
        params: { path: { student_id: id } },
        body: { stand },
      }),
    ),
  whatIf: (id: number, climbId: number) =>
    taken(
      client.GET("/api/students/{student_id}/what-if", {
        params: { path: { student_id: id }, query: { climb_id: climbId } },
      }),
    ),
  findLessons: (base64: string) => taken(client.POST("/api/students/lessons", { body: { base64 } })),

  groups: () => taken(client.GET("/api/groups")),
  group: (id: number) => taken(client.GET("/api/groups/{group_id}", { params: { path: { group_id: id } } })),
  addGroup: (details: GroupDetails, key: string) =>
    taken(client.POST("/api/groups", { body: { details, key } })),
  changeGroup: (id: number, details: GroupDetails, basedOn: number) =>
    taken(
      client.PUT("/api/groups/{group_id}", {
        params: { path: { group_id: id } },
        body: { details, based_on: basedOn },
      }),
    ),
  deleteGroup: (id: number) =>
    taken(client.DELETE("/api/groups/{group_id}", { params: { path: { group_id: id } } })),
  handOut: (id: number, body: Schemas["HandOutBody"]) =>
    taken(client.POST("/api/groups/{group_id}/climbs", { params: { path: { group_id: id } }, body })),

  settings: () => taken(client.GET("/api/settings")),
  keepSettings: (settings: Schemas["StudioSettings"]) =>
    taken(client.PUT("/api/settings", { body: { settings } })),

  addStudent: (details: StudentDetails, key: string) =>
    taken(client.POST("/api/students", { body: { details, key } })),

  drills: (archived = false) => taken(client.GET("/api/drills", { params: { query: { archived } } })),
  archiveDrill: (id: number, archived: boolean) =>
    taken(
      client.PUT("/api/drills/{drill_id}/archived", {
        params: { path: { drill_id: id } },
        body: { archived },
      }),
    ),
  drill: (id: number, version?: number) =>
    taken(
      client.GET("/api/drills/{drill_id}", {
        params: { path: { drill_id: id }, query: version ? { version } : {} },
      }),
    ),
  versions: (id: number) =>
    taken(client.GET("/api/drills/{drill_id}/versions", { params: { path: { drill_id: id } } })),
  addDrill: (drill: Drill, key: string) => taken(client.POST("/api/drills", { body: { drill, key } })),
  ofShelf: (which: string) => taken(client.GET("/api/shelf/{key}", { params: { path: { key: which } } })),
  shelf: async () => {
    const { drills, ...lists } = await taken(client.GET("/api/shelf"));
    return { ...lists, drills: drills.map((one) => ({ ...one, row: unpackRow(one.row) })) };
  },
  takeFromShelf: (which: string, key: string) =>
    taken(client.POST("/api/shelf/{key}", { params: { path: { key: which } }, body: { key } })),
  say: (body: Schemas["SayBody"], { signal }: Abort = {}) =>
    taken(client.POST("/api/say", { body, signal: signal ?? null })),
  tool: (body: Schemas["ToolBody"]) => taken(client.POST("/api/tool", { body })),
  partsOf: (base64: string) => taken(client.POST("/api/scores/parts", { body: { base64 } })),
  takeBars: (body: Schemas["TakeBars"]) => taken(client.POST("/api/scores/drill", { body })),
  openDrillFile: (text: string, key: string) =>
    taken(client.POST("/api/drills/file", { body: { text, key } })),
  saveDrill: (id: number, drill: Drill, basedOn: number, writer: string) =>
    taken(
      client.PUT("/api/drills/{drill_id}", {
        params: { path: { drill_id: id } },
        body: { drill, based_on: basedOn, writer: writer || null },
      }),
    ),

  takeResults: (text: string, student_id: number | null) =>
    taken(client.POST("/api/results", { body: { text, student_id } })),
  recap: (id: number) =>
    taken(client.GET("/api/students/{student_id}/recap", { params: { path: { student_id: id } } })),
  lookAtShared: (text: string) => taken(client.POST("/api/shared/look", { body: { text } })),
  takeShared: (text: string, choices: Schemas["ChoiceShape"][], key: string) =>
    taken(client.POST("/api/shared", { body: { text, choices, key } })),
  previewSheet: (body: Schemas["SheetBody"], { signal }: Abort = {}) =>
    taken(client.POST("/api/sheets/preview", { body, signal: signal ?? null })),
  issueSheet: (body: Schemas["SheetBody"]) => taken(client.POST("/api/sheets", { body })),
  sheets: ({ climb_id, drill_id }: { climb_id?: number; drill_id?: number }) =>
    taken(
      client.GET("/api/sheets", {
        params: { query: { climb_id: climb_id ?? null, drill_id: drill_id ?? null } },
      }),
    ),
  written: (body: Schemas["WrittenBody"], { signal }: Abort = {}) =>
    taken(client.POST("/api/written", { body, signal: signal ?? null })),
  lies: (drill: Drill, { signal }: Abort = {}) =>
    taken(client.POST("/api/written/lies", { body: { drill }, signal: signal ?? null })),
  reading: async (drill: Drill, bpm: string | null, { signal }: Abort = {}) =>
    unpackReading(await taken(client.POST("/api/reading", { body: { drill, bpm }, signal: signal ?? null }))),
  performance: async (body: Schemas["PerformanceBody"], { signal }: Abort = {}): Promise<Performance> => {
    const found = await taken(client.POST("/api/performance", { body, signal: signal ?? null }));
    return { ...found, performance: unpackScore(found.performance), reading: unpackReading(found.reading) };
  },
  compare: (body: Schemas["CompareBody"]) => taken(client.POST("/api/compare", { body })),
  guess: (body: Schemas["GuessBody"]) => taken(client.POST("/api/guess", { body })),
  circuit: (body: Schemas["CircuitBody"]) => taken(client.POST("/api/circuit", { body })),
  tappedTempo: (taps: number[]) => taken(client.POST("/api/tempo/tapped", { body: { taps } })),
  amount: (text: string, what: string, { signal }: Abort = {}) =>
    taken(client.GET("/api/amount", { params: { query: { text, what } }, signal: signal ?? null })),

  climbs: (words = "") => taken(client.GET("/api/climbs", { params: { query: { words } } })),
  climb: (id: number) => taken(client.GET("/api/climbs/{climb_id}", { params: { path: { climb_id: id } } })),
  map: (id: number) =>
    taken(client.GET("/api/climbs/{climb_id}/map", { params: { path: { climb_id: id } } })),
  ladder: (drillId: number, plan: Plan, overrides: Overrides | null = null) =>
    taken(client.POST("/api/climbs/ladder", { body: { drill_id: drillId, plan, version: null, overrides } })),
  startClimb: (body: Schemas["ClimbBody"]) => taken(client.POST("/api/climbs", { body })),
  lookAtSet: (body: Schemas["SetBody"]) => taken(client.POST("/api/climbs/set/look", { body })),
  startSet: (body: Schemas["SetBody"]) => taken(client.POST("/api/climbs/set", { body })),
  climbSet: (setKey: string) =>
    taken(client.GET("/api/climbs/set/{set_key}", { params: { path: { set_key: setKey } } })),
  drillOfClimb: (id: number) =>
    taken(client.GET("/api/climbs/{climb_id}/drill", { params: { path: { climb_id: id } } })),
  /** Let a climb go on with a drill of its student’s own. */
  takeOwn: (id: number, drill: Drill, basedOn: number, key: string) =>
    taken(
      client.PUT("/api/climbs/{climb_id}/own", {
        params: { path: { climb_id: id } },
        body: { drill, based_on: basedOn, key },
      }),
    ),
  takeVersion: (id: number, version: number, basedOn: number) =>
    taken(
      client.PUT("/api/climbs/{climb_id}/version", {
        params: { path: { climb_id: id } },
        body: { version, based_on: basedOn },
      }),
    ),
  changeClicks: (id: number, body: Schemas["ClicksBody"]) =>
    taken(client.PUT("/api/climbs/{climb_id}/clicks", { params: { path: { climb_id: id } }, body })),
  keepClicks: (id: number, clicks: Plan["clicks"], basedOn: number) =>
    taken(
      client.PUT("/api/students/{student_id}/clicks", {
        params: { path: { student_id: id } },
        body: { clicks, based_on: basedOn },
      }),
    ),
  move: (id: number, body: Schemas["MoveBody"]) =>
    taken(client.POST("/api/climbs/{climb_id}/moves", { params: { path: { climb_id: id } }, body })),

  playAlong: (body: Schemas["PlayAlongBody"]) => taken(client.POST("/api/play-along", { body })),
  playAlongOf: (key: string) => taken(client.GET("/api/play-along/{key}", { params: { path: { key } } })),

  addTake: (body: TakeBody) => taken(client.POST("/api/takes", { body })),
  takes: (query: { student_id?: number; climb_id?: number; most: number }) =>
    taken(client.GET("/api/takes", { params: { query } })),
  writeNote: (id: string, note: string) =>
    taken(client.PUT("/api/takes/{take_id}/note", { params: { path: { take_id: id } }, body: { note } })),
  take: (id: string) => taken(client.GET("/api/takes/{take_id}", { params: { path: { take_id: id } } })),
  takeAgain: (id: string) =>
    taken(client.GET("/api/takes/{take_id}/again", { params: { path: { take_id: id } } })),
  hearTake: (id: string, ear: Ear) =>
    taken(client.PUT("/api/takes/{take_id}/ear", { params: { path: { take_id: id } }, body: { ear } })),
  takeRemedy: (id: string, remedy: string, bpm: string | null, key: string) =>
    taken(
      client.POST("/api/takes/{take_id}/remedies", {
        params: { path: { take_id: id } },
        body: { remedy, bpm, key },
      }),
    ),
  remedies: (query: { student_id?: number; climb_id?: number }) =>
    taken(client.GET("/api/remedies", { params: { query } })),
  remedy: (id: number) =>
    taken(client.GET("/api/remedies/{remedy_id}", { params: { path: { remedy_id: id } } })),
  changeLimits: (id: number, limits: Schemas["Limits"], basedOn: number) =>
    taken(
      client.PUT("/api/climbs/{climb_id}/limits", {
        params: { path: { climb_id: id } },
        body: { limits, based_on: basedOn },
      }),
    ),
  standIn: (body: Schemas["StandInBody"]) => taken(client.POST("/api/stand-in", { body })),
  standInRecording: async (body: Schemas["StandInBody"], signal: AbortSignal): Promise<ArrayBuffer> =>
    taken(
      client.POST("/api/stand-in/recording", { body, parseAs: "arrayBuffer", signal }) as Promise<
        Answer<ArrayBuffer>
      >,
    ),
  sendPiece: (key: string, number: number, piece: BodyInit) =>
    taken(
      client.POST("/api/recordings/{key}/pieces/{number}", {
        params: { path: { key, number } },
        body: piece as never,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    ),
  listen: (key: string, body: Schemas["ListenBody"]) =>
    taken(client.POST("/api/recordings/{key}/listen", { params: { path: { key } }, body })),
  roundTrip: (key: string, rate: number, clicks: number[]) =>
    taken(
      client.POST("/api/recordings/{key}/latency", { params: { path: { key } }, body: { rate, clicks } }),
    ),
  takeFromFile: (body: Schemas["TakeFileBody"]) => taken(client.POST("/api/takes/from-file", { body })),
  howBack: (takeId: string) =>
    taken(client.GET("/api/takes/{take_id}/back", { params: { path: { take_id: takeId } } })),
  recordings: (studentId?: number) =>
    taken(client.GET("/api/recordings", { params: { query: studentId ? { student_id: studentId } : {} } })),
  deleteRecordings: (studentId?: number) =>
    taken(
      client.DELETE("/api/recordings", { params: { query: studentId ? { student_id: studentId } : {} } }),
    ),
  deleteRecording: (takeId: string) =>
    taken(client.DELETE("/api/takes/{take_id}/recording", { params: { path: { take_id: takeId } } })),
  setups: () => taken(client.GET("/api/setups")),
  setup: (query: SetupKey) => taken(client.GET("/api/setups/known", { params: { query } })),
  /** Keep what is newly known of a set-up; the rest of it stays as it is. */
  keepSetup: (of: SetupKey, known: Partial<Pick<Schemas["SetupBody"], "way" | "ms" | "half" | "pads">>) => {
    const { source, device = "", output = "", place = "" } = of;
    const unchanged = { way: null, ms: 0, half: 0, forget: false, pads: null };
    return taken(
      client.PUT("/api/setups", { body: { source, device, output, place, ...unchanged, ...known } }),
    );
  },
  forgetSetup: (id: number) =>
    taken(client.DELETE("/api/setups/{setup_id}", { params: { path: { setup_id: id } } })),
  latency: (due: number[], played: number[]) => taken(client.POST("/api/latency", { body: { due, played } })),

  log: (query: LogFilter) => taken(client.GET("/api/log", { params: { query } })),
  readLog: (studentId: number, text: string) =>
    taken(client.POST("/api/log.csv", { body: { student_id: studentId, text } })),
  deleteTake: (id: string) =>
    taken(client.DELETE("/api/takes/{take_id}", { params: { path: { take_id: id } } })),
  undoMove: (climbId: number, moveId: number) =>
    taken(
      client.DELETE("/api/climbs/{climb_id}/moves/{move_id}", {
        params: { path: { climb_id: climbId, move_id: moveId } },
      }),
    ),
  sums: (query: Record<string, string | number>) =>
    taken(client.GET("/api/sums", { params: { query: query as never } })),
};

/** Addresses of files to save. */
export const files = {
  shared: (drills: readonly number[]) =>
    ofStudio(`/api/shared/file.json?${drills.map((id) => `drill=${id}`).join("&")}`),
  practice: (climbs: readonly number[]) =>
    ofStudio(`/api/practice-file.html?${climbs.map((id) => `climb=${id}`).join("&")}`),
  sheet: (id: number) => ofStudio(`/api/sheets/${id}/file.pdf`),
  drill: (id: number, version: number, ending: string) =>
    ofStudio(`/api/drills/${id}/file.${ending}?version=${version}`),
  words: ofStudio("/api/words/all.flac"),
  ownWord: (word: string) => ofStudio(`/api/words/own.flac?word=${encodeURIComponent(word)}`),
  playAlong: (key: string) => ofStudio(`/api/play-along/${key}/file`),
  heardBack: (takeId: string, what: { take: boolean; click: boolean; notes: boolean }) =>
    ofStudio(`/api/takes/${takeId}/sound.wav?take=${what.take}&click=${what.click}&notes=${what.notes}`),
  backup: ofStudio("/api/settings/backup.sqlite3"),
  calendar: (studentId: number) => ofStudio(`/api/students/${studentId}/calendar.ics`),
  log: (studentId?: number) => ofStudio(studentId ? `/api/log.csv?student_id=${studentId}` : "/api/log.csv"),
};
