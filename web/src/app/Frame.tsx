/** The bar that is always there: where you are, what can be undone, units and light. */
import { lazy, Suspense, useEffect, useRef, type ReactNode } from "react";
import { Link, Outlet, useLocation, useMatch } from "react-router";
import { useHistory, useJob } from "../api/queries";
import { say, type Said } from "../drawing/sentence";
import { useSettings } from "../kit/settings";
import { BASE } from "../api/base";
import { useAlerts } from "./alerts";
import { KeySheet, useKeys, useTakeBack } from "./keys";
import { UnitsButton } from "./UnitsButton";
import { SaidHere } from "../kit/SaidHere";
import { StaleHere } from "../kit/Stale";
import { Unsent } from "../kit/Unsent";
import { useHeldPresses } from "../kit/taking";
import { useMenu } from "../kit/menu";
import { useLive } from "./live";

const DemoBar = lazy(async () => ({ default: (await import("./DemoBar")).DemoBar }));

export function Frame() {
  const match = useMatch("/jobs/:jobId/*");
  const live = useLive();
  const { units } = useSettings();
  const ready = live.pieces?.filter((p) => p.now.side === "ready").length ?? 0;
  useKeys(match?.params.jobId);
  useAlerts(live.pieces);
  useArrival();
  useHeldPresses();
  return (
    <div className="mx-auto flex min-h-dvh max-w-[1680px] flex-col px-3 pb-4 sm:px-5">
      <a href="#work" className="btn visually-hidden focus:not-sr-only">
        Skip to main content
      </a>
      <header className="no-print relative flex items-center gap-x-2 py-2 sm:gap-x-3">
        <Link
          to="/"
          className="flex min-h-11 shrink-0 items-center gap-2 no-underline"
          aria-label="Ready Slab"
        >
          <Mark />
          <span
            className={`font-head text-xl font-bold tracking-tight ${match?.params.jobId ? "max-sm:hidden" : ""}`}
          >
            Ready Slab
          </span>
        </Link>
        {match?.params.jobId ? <Where id={Number(match.params.jobId)} /> : null}
        <nav aria-label="Program" className="ml-auto flex shrink-0 items-center sm:gap-1">
          <UndoButtons />
          <Menu ready={ready}>
            <Link to="/" className="btn btn-quiet btn-small">
              Jobs
            </Link>
            <Link to="/days" className="btn btn-quiet btn-small">
              Days
            </Link>
            <LiveLink count={live.pieces?.length ?? 0} ready={ready} />
            <Link to="/pantry" className="btn btn-quiet btn-small">
              Pantry
            </Link>
            <Link to="/kitchen" className="btn btn-quiet btn-small">
              Kitchen
            </Link>
            <Switches />
            <KeySheet />
          </Menu>
        </nav>
      </header>
      {BASE === "" ? null : (
        <Suspense>
          <DemoBar />
        </Suspense>
      )}
      {/* Times are written without asking for settings: another clock draws all of them anew. */}
      <Suspense
        key={units.clock}
        fallback={
          <p className="p-6 text-soft" role="status">
            Loading…
          </p>
        }
      >
        <Outlet />
      </Suspense>
      <SaidHere />
      <StaleHere />
      <Unsent />
    </div>
  );
}

/** Whoever opens another page or station begins at its top, with the focus on it; the views of one station change under the hand. */
function useArrival(): void {
  const { pathname } = useLocation();
  const page = pathname.split("/").slice(0, 4).join("/");
  const before = useRef(page);
  useEffect(() => {
    if (before.current === page) return;
    before.current = page;
    scrollTo(0, 0);
    const work = document.querySelector<HTMLElement>("#work");
    // A page that puts the focus into its first field has done so already.
    if (!work || work.contains(document.activeElement)) return;
    work.tabIndex = -1;
    work.focus({ preventScroll: true });
  }, [page]);
}

/** All that the bar leads to: in a row, or on a phone behind one button, so that the head takes one line. */
function Menu({ ready, children }: { ready: number; children: ReactNode }) {
  const { pathname } = useLocation();
  const { open, whole, button, toggle } = useMenu(pathname);
  return (
    <div ref={whole} className="contents">
      <button
        ref={button}
        type="button"
        className={`btn btn-quiet btn-small sm:hidden ${ready > 0 ? "bg-butter text-[#14302c]" : ""}`}
        aria-expanded={open}
        aria-controls="menu"
        onClick={toggle}
      >
        {open ? "Close" : "Menu"}
        {ready > 0 ? <span className="num font-normal">{ready} ready</span> : null}
      </button>
      <div id="menu" className={`menu ${open ? "menu-open" : ""}`}>
        {children}
      </div>
    </div>
  );
}

/** The way to the live view; where a piece is ready it says so. */
function LiveLink({ count, ready }: { count: number; ready: number }) {
  return (
    <Link to="/live" className={`btn btn-quiet btn-small ${ready > 0 ? "bg-butter text-[#14302c]" : ""}`}>
      Chilling now
      {count > 0 ? <span className="num font-normal">{ready > 0 ? `${ready} ready` : count}</span> : null}
    </Link>
  );
}

function Mark() {
  return (
    <svg viewBox="0 0 32 22" width="34" height="23" aria-hidden="true">
      <rect x="1" y="6" width="30" height="13" rx="4" className="fill-butter" />
      <path d="M1 12.5h30" className="stroke-spruce" strokeWidth="1.6" />
      <path d="M4 3h24" className="stroke-spruce" strokeWidth="2.4" strokeLinecap="round" />
    </svg>
  );
}

function Where({ id }: { id: number }) {
  const job = useJob(id);
  if (!job.data) return null;
  return (
    <p className="min-w-0 truncate text-soft">
      <span aria-hidden="true">/ </span>
      {job.data.name}
    </p>
  );
}

function UndoButtons() {
  const history = useHistory();
  const takeBack = useTakeBack();
  const { format } = useSettings();
  const told = (label: Said | undefined) => label && say(label, format);
  const undoLabel = told(history.data?.undo?.label);
  const redoLabel = told(history.data?.redo?.label);
  return (
    <>
      <button
        type="button"
        className="btn btn-quiet btn-small max-w-72"
        disabled={!undoLabel}
        onClick={() => takeBack()}
        aria-label={undoLabel ? `Undo ${undoLabel}` : "Nothing to undo"}
        aria-keyshortcuts="Control+Z"
      >
        <span className="font-semibold">Undo</span>
        {undoLabel ? (
          <span className="hidden truncate font-normal text-soft md:inline">{undoLabel}</span>
        ) : null}
      </button>
      {redoLabel ? (
        <button
          type="button"
          className="btn btn-quiet btn-small"
          onClick={() => takeBack(true)}
          aria-label={`Redo ${redoLabel}`}
          aria-keyshortcuts="Control+Shift+Z"
        >
          Redo
        </button>
      ) : null}
    </>
  );
}

function Switches() {
  const { theme, setTheme } = useSettings();
  return (
    <>
      <UnitsButton />
      <button
        type="button"
        className="btn btn-quiet btn-small"
        onClick={() => setTheme(theme === "dark" ? "light" : "dark")}
        aria-label={theme === "dark" ? "Light theme" : "Dark theme"}
      >
        {theme === "dark" ? "Light" : "Dark"}
      </button>
    </>
  );
}
