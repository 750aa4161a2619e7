import { Route, Routes } from "react-router";
import {
  BenchPage,
  ClimbOnStand,
  ClimbPage,
  ClimbSheet,
  ClimbsPage,
  DeskPage,
  DrillOnStand,
  DrillSheet,
  EmptyStand,
  GroupPage,
  GuidePage,
  LibraryPage,
  LogPage,
  NewClimbPage,
  SettingsPage,
  ShelfPage,
  StudentPage,
  StudentsPage,
  TakePage,
} from "./places";
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
      <p>The six places are at the top.</p>
    </div>
  );
}
