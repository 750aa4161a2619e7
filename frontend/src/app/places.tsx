/** The places, each loaded when it is opened; and all the others once the first one stands there. */
import { type ComponentType, lazy } from "react";

type Loaded<Props> = { default: ComponentType<Props> };

const loaders: (() => Promise<unknown>)[] = [];

/** A part of the app that is loaded when it is first shown. */
function part<Module, Props>(load: () => Promise<Module>, pick: (module: Module) => ComponentType<Props>) {
  loaders.push(load);
  return lazy(
    (): Promise<Loaded<Props>> =>
      load().then(
        (module) => ({ default: pick(module) }),
        () => ({ default: NotLoaded }),
      ),
  );
}

export const DeskPage = part(
  () => import("../features/desk/DeskPage"),
  (it) => it.DeskPage,
);
export const LibraryPage = part(
  () => import("../features/bench/LibraryPage"),
  (it) => it.LibraryPage,
);
export const BenchPage = part(
  () => import("../features/bench/BenchPage"),
  (it) => it.BenchPage,
);
export const ClimbsPage = part(
  () => import("../features/climbs/ClimbsPage"),
  (it) => it.ClimbsPage,
);
export const ClimbPage = part(
  () => import("../features/climbs/ClimbPage"),
  (it) => it.ClimbPage,
);
export const ClimbOnStand = part(
  () => import("../features/stand/ClimbOnStand"),
  (it) => it.ClimbOnStand,
);
export const DrillOnStand = part(
  () => import("../features/stand/DrillOnStand"),
  (it) => it.DrillOnStand,
);
export const EmptyStand = part(
  () => import("../features/stand/EmptyStand"),
  (it) => it.EmptyStand,
);
export const LogPage = part(
  () => import("../features/log/LogPage"),
  (it) => it.LogPage,
);
export const StudentPage = part(
  () => import("../features/students/StudentPage"),
  (it) => it.StudentPage,
);
export const StudentsPage = part(
  () => import("../features/students/StudentsPage"),
  (it) => it.StudentsPage,
);
export const SumsDrawer = part(
  () => import("../features/sums/SumsDrawer"),
  (it) => it.SumsDrawer,
);
export const Keys = part(
  () => import("./Keys"),
  (it) => it.Keys,
);
export const ShelfPage = part(
  () => import("../features/bench/ShelfPage"),
  (it) => it.ShelfPage,
);
export const NewClimbPage = part(
  () => import("../features/climbs/NewClimbPage"),
  (it) => it.NewClimbPage,
);
export const TakePage = part(
  () => import("../features/log/TakePage"),
  (it) => it.TakePage,
);
export const DrillSheet = part(
  () => import("../features/sheets/SheetPage"),
  (it) => it.DrillSheet,
);
export const ClimbSheet = part(
  () => import("../features/sheets/SheetPage"),
  (it) => it.ClimbSheet,
);
export const GroupPage = part(
  () => import("../features/groups/GroupPage"),
  (it) => it.GroupPage,
);
export const SettingsPage = part(
  () => import("../features/settings/SettingsPage"),
  (it) => it.SettingsPage,
);
export const GuidePage = part(
  () => import("../features/help/GuidePage"),
  (it) => it.GuidePage,
);
export const Glossary = part(
  () => import("../features/help/Glossary"),
  (it) => it.Glossary,
);

/** Load what is not shown yet, one part after the other, so that every place opens where the server has gone. */
export async function loadTheRest(): Promise<void> {
  // What cannot be had now is asked for again when it is opened.
  for (const load of loaders) await load().catch(() => undefined);
}

function NotLoaded() {
  return (
    <div role="alert" className="p-6 flex flex-col gap-3 items-start">
      <h1 className="text-2xl font-bold">This place could not be loaded</h1>
      <p>
        The server does not answer, or is a newer one than this page. Takes that were not sent yet stay here.
      </p>
      <button type="button" className="button button-first" onClick={() => window.location.reload()}>
        Load the page again
      </button>
    </div>
  );
}
