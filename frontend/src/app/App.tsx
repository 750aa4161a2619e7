import { Route, Routes } from "react-router";
import { BenchPage } from "../features/bench/BenchPage";
import { LibraryPage } from "../features/bench/LibraryPage";
import { ShelfPage } from "../features/bench/ShelfPage";
import { ClimbPage } from "../features/climbs/ClimbPage";
import { ClimbsPage } from "../features/climbs/ClimbsPage";
import { NewClimbPage } from "../features/climbs/NewClimbPage";
import { DeskPage } from "../features/desk/DeskPage";
import { GroupPage } from "../features/groups/GroupPage";
import { GuidePage } from "../features/help/GuidePage";
import { LogPage } from "../features/log/LogPage";
import { TakePage } from "../features/log/TakePage";
import { SettingsPage } from "../features/settings/SettingsPage";
import { ClimbSheet, DrillSheet } from "../features/sheets/SheetPage";
import { ClimbOnStand } from "../features/stand/ClimbOnStand";
import { DrillOnStand } from "../features/stand/DrillOnStand";
import { EmptyStand } from "../features/stand/EmptyStand";
import { StudentPage } from "../features/students/StudentPage";
import { StudentsPage } from "../features/students/StudentsPage";
import { Shell } from "./Shell";

/** Which place stands at which address. */
export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<DeskPage />} />
        <Route path="bench" element={<LibraryPage />} />
        <Route path="bench/shelf" element={<ShelfPage />} />
        <Route path="bench/:drillId" element={<BenchPage />} />
        <Route path="bench/:drillId/sheet" element={<DrillSheet />} />
        <Route path="climbs" element={<ClimbsPage />} />
        <Route path="climbs/new" element={<NewClimbPage />} />
        <Route path="climbs/:climbId" element={<ClimbPage />} />
        <Route path="climbs/:climbId/sheet" element={<ClimbSheet />} />
        <Route path="stand" element={<EmptyStand />} />
        <Route path="stand/climb/:climbId" element={<ClimbOnStand />} />
        <Route path="stand/drill/:drillId" element={<DrillOnStand />} />
        <Route path="students" element={<StudentsPage />} />
        <Route path="students/:studentId" element={<StudentPage />} />
        <Route path="groups/:groupId" element={<GroupPage />} />
        <Route path="log" element={<LogPage />} />
        <Route path="log/:studentId" element={<LogPage />} />
        <Route path="log/take/:takeId" element={<TakePage />} />
        <Route path="settings" element={<SettingsPage />} />
        <Route path="guide" element={<GuidePage />} />
        <Route path="*" element={<Nowhere />} />
      </Route>
    </Routes>
  );
}

function Nowhere() {
  return (
    <div className="p-6">
      <h1 className="text-2xl font-bold">There is nothing at this address</h1>
      <p>The five places are at the top.</p>
    </div>
  );
}
