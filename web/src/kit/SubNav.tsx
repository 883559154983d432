/**
 * The views of a station, each with its own address; on a phone the strip is moved so that the open one is seen. What most jobs need stands in
 * front, the rest behind "More" until somebody opens it or is there.
 */
import { useEffect, useRef, type ReactNode } from "react";
import { NavLink, useLocation } from "react-router";
import { useKept } from "./kept";

export interface View {
  path: string;
  name: string;
  mark?: ReactNode;
  /** Not needed on most jobs. */
  rare?: boolean;
}

export function SubNav({ label, base, views }: { label: string; base: string; views: readonly View[] }) {
  const [all, setAll] = useKept("more views", false);
  const strip = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    const here = strip.current?.querySelector<HTMLElement>("[aria-current=page]");
    if (here && strip.current && pathname.startsWith(base))
      strip.current.scrollLeft = here.offsetLeft - (strip.current.clientWidth - here.offsetWidth) / 2;
  }, [pathname, base]);
  const away = views.some((v) => v.rare && pathname === `${base}${v.path}`);
  const open = all || away;
  const hidden = views.some((v) => v.rare);
  return (
    <nav
      ref={strip}
      aria-label={label}
      className="no-print relative -mx-1 mb-4 flex gap-1 overflow-x-auto px-1 py-1"
    >
      {views
        .filter((v) => open || !v.rare)
        .map((v) => (
          <NavLink
            key={v.path}
            end
            to={`${base}${v.path}`}
            className={({ isActive }) => `tab ${isActive ? "tab-on" : ""}`}
          >
            {v.name}
            {v.mark}
          </NavLink>
        ))}
      {hidden && !away ? (
        <button type="button" className="tab" aria-expanded={open} onClick={() => setAll(!all)}>
          {open ? "Fewer" : "More"}
        </button>
      ) : null}
    </nav>
  );
}
