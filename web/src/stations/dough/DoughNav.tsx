/** The views of the dough station, each with its own address. */
import { NavLink } from "react-router";

const VIEWS = [
  { path: "", name: "What it is" },
  { path: "/mix", name: "Mix it" },
  { path: "/size", name: "Size it" },
  { path: "/change", name: "Change it" },
  { path: "/label", name: "Cost and label" },
  { path: "/versions", name: "Versions" },
] as const;

export function DoughNav({ jobId }: { jobId: number }) {
  return (
    <nav aria-label="Views of the dough" className="no-print -mx-1 mb-4 flex gap-1 overflow-x-auto px-1 py-1">
      {VIEWS.map((v) => (
        <NavLink
          key={v.path}
          end
          to={`/jobs/${jobId}/dough${v.path}`}
          className={({ isActive }) => `tab ${isActive ? "tab-on" : ""}`}
        >
          {v.name}
        </NavLink>
      ))}
    </nav>
  );
}
