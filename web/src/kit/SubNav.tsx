/** The views of a station, each with its own address; on a phone the strip is moved so that the open one is seen. */
import { useEffect, useRef, type ReactNode } from "react";
import { NavLink, useLocation } from "react-router";

export function SubNav({ label, base, views }: { label: string; base: string; views: readonly { path: string; name: string; mark?: ReactNode }[] }) {
  const strip = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    const here = strip.current?.querySelector<HTMLElement>("[aria-current=page]");
    if (here && strip.current && pathname.startsWith(base)) strip.current.scrollLeft = here.offsetLeft - (strip.current.clientWidth - here.offsetWidth) / 2;
  }, [pathname, base]);
  return (
    <nav ref={strip} aria-label={label} className="no-print relative -mx-1 mb-4 flex gap-1 overflow-x-auto px-1 py-1">
      {views.map((v) => (
        <NavLink key={v.path} end to={`${base}${v.path}`} className={({ isActive }) => `tab ${isActive ? "tab-on" : ""}`}>
          {v.name}
          {v.mark}
        </NavLink>
      ))}
    </nav>
  );
}
