import { useQuery } from "@tanstack/react-query";
import { Suspense, useEffect, useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate } from "react-router";
import { choicesQuery } from "../api/queries";
import { Key } from "../ui/Key";
import { useGuideRead } from "../ui/useGuideRead";
import { useLetters } from "../ui/useLetters";
import { useNewDrill } from "../ui/useNewDrill";
import { OutboxLine } from "./OutboxLine";
import { Glossary, Keys, loadTheRest, SumsDrawer } from "./places";
import { useTheme } from "./useTheme";

const PLACES = [
  { to: "/", name: "Today" },
  { to: "/students", name: "Students" },
  { to: "/bench", name: "Drills" },
  { to: "/climbs", name: "Climbs" },
  { to: "/stand", name: "Stand" },
  { to: "/log", name: "Log" },
] as const;

/** What else has an address, after the place that it belongs to. */
const BESIDE = [
  { to: "/groups", name: "Groups" },
  { to: "/settings", name: "Settings" },
  { to: "/guide", name: "Guide" },
] as const;

function titleOf(path: string): string {
  if (path === "/") return PLACES[0].name;
  return (
    [...PLACES.slice(1), ...BESIDE].find((one) => `${path}/`.startsWith(`${one.to}/`))?.name ?? "Nothing here"
  );
}

/** Is there once the place beside it is: the others are loaded then. */
function Stands() {
  useEffect(() => {
    const later = setTimeout(() => void loadTheRest(), 1500);
    return () => clearTimeout(later);
  }, []);
  return null;
}

/** The frame of every place: the bar at the top, the drawer of sums, the keys. */
export function Shell() {
  const navigate = useNavigate();
  const place = useLocation();
  const [open, setOpen] = useState<"sums" | "keys" | "words" | null>(null);
  const isStand = place.pathname.startsWith("/stand/");
  // A dialog that makes way for another says that it is closed when the other one stands there already.
  const close = (which: typeof open) => setOpen((now) => (now === which ? null : now));
  const theme = useTheme(isStand);
  const choices = useQuery(choicesQuery);
  const newDrill = useNewDrill();
  const [guideRead] = useGuideRead();

  useLetters("1,2,3,4,5,6", (event) => {
    const to = PLACES[Number(event.key) - 1]?.to;
    if (to) void navigate(to);
  });
  useLetters("u", () => setOpen((now) => (now === "sums" ? null : "sums")), { preventDefault: true });
  useLetters("?", () => setOpen("keys"), { useKey: true, preventDefault: true });
  useLetters("n", () => newDrill.mutate(), { preventDefault: true });
  useEffect(() => {
    document.title = `${titleOf(place.pathname)} – Ripresa`;
  }, [place]);

  return (
    <div className="min-h-screen flex flex-col">
      <a href="#place" className="skip-link">
        To the place itself
      </a>
      <header className="bar">
        <Link to="/" className="font-display font-extrabold text-xl mr-2 no-underline">
          Ripresa<span className="text-accent">.</span>
        </Link>
        <nav aria-label="Places" className="flex flex-1 gap-1 sm:gap-3 overflow-x-auto">
          {PLACES.map((one) => (
            <NavLink key={one.to} to={one.to} end={one.to === "/"} className="bar-place">
              {one.name}
            </NavLink>
          ))}
          {!guideRead && (
            <NavLink to="/guide" className="bar-place">
              Guide
            </NavLink>
          )}
        </nav>
        <div className="bar-tools">
          {choices.data?.is_demo && <span className="bar-note">demo: nothing is kept</span>}
          <NavLink to="/settings" className="bar-tool bar-link">
            Settings
          </NavLink>
          <button type="button" className="bar-tool" onClick={theme.toggle}>
            {theme.name === "fog" ? "Dark" : "Light"}
          </button>
          <button type="button" className="bar-tool" onClick={() => setOpen("sums")}>
            Sums <Key name="U" />
          </button>
          <button type="button" className="bar-tool" onClick={() => setOpen("keys")}>
            Keys <Key name="?" />
          </button>
        </div>
      </header>
      <OutboxLine />
      <main
        id="place"
        tabIndex={-1}
        className={`flex-1 w-full max-w-330 mx-auto px-3 sm:px-6 py-4 ${isStand ? "stand-place" : ""}`}
      >
        <Suspense fallback={<p role="status">…</p>}>
          <Outlet />
          <Stands />
        </Suspense>
      </main>
      <Suspense fallback={null}>
        {open === "sums" && <SumsDrawer onClose={() => setOpen(null)} />}
        {open === "keys" && <Keys onClose={() => close("keys")} onWords={() => setOpen("words")} />}
        {open === "words" && <Glossary onClose={() => close("words")} />}
      </Suspense>
    </div>
  );
}
