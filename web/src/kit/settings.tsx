/** How this person likes to see things: units and light. Kept in this browser. */
import { createContext, use, useEffect, useMemo, useState, type ReactNode } from "react";
import { useUnits } from "../api/queries";
import { setClockHours } from "../drawing/time";
import { makeFormat, PRESETS, type Format, type System, type Units } from "../drawing/units";

export type Theme = "light" | "dark";
interface Settings {
  format: Format;
  units: Units;
  setUnits(units: Units): void;
  theme: Theme;
  setTheme(theme: Theme): void;
  /** Whether single keys act (WCAG 2.1.4). */
  singleKeys: boolean;
  setSingleKeys(on: boolean): void;
}

const Context = createContext<Settings | null>(null);

function kept(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

function keep(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // A browser that keeps nothing still works; it only forgets.
  }
}

/** What was chosen here before; one word of earlier days stands for all four. */
function keptUnits(): Units {
  const text = kept("units");
  const named = PRESETS[text as System] as Units | undefined;
  let units = named ?? PRESETS.metric;
  if (!named && text) {
    try {
      units = { ...units, ...(JSON.parse(text) as Partial<Units>) };
    } catch {
      // What cannot be read is as if nothing had been chosen.
    }
  }
  setClockHours(units.clock);
  return units;
}

export function SettingsProvider({ children }: { children: ReactNode }) {
  const units = useUnits();
  const [chosen, setChosen] = useState<Units>(keptUnits);
  const [theme, setTheme] = useState<Theme>(() => {
    const chosen = kept("theme");
    if (chosen === "dark" || chosen === "light") return chosen;
    return matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
  });
  const [singleKeys, setSingleKeys] = useState(kept("keys") !== "off");
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const value = useMemo<Settings>(
    () => ({
      format: makeFormat(chosen, units.data ?? []),
      units: chosen,
      setUnits: (next) => {
        keep("units", JSON.stringify(next));
        setClockHours(next.clock);
        setChosen(next);
      },
      theme,
      setTheme: (next) => {
        keep("theme", next);
        setTheme(next);
      },
      singleKeys,
      setSingleKeys: (on) => {
        keep("keys", on ? "on" : "off");
        setSingleKeys(on);
      },
    }),
    [chosen, theme, singleKeys, units.data],
  );
  return <Context value={value}>{children}</Context>;
}

export function useSettings(): Settings {
  const settings = use(Context);
  if (!settings) throw new Error("useSettings needs a SettingsProvider around it");
  return settings;
}

export const useFormat = (): Format => useSettings().format;
