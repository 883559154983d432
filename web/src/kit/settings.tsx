/** How this person likes to see things: units and light. Kept in this browser. */
import { createContext, use, useEffect, useMemo, useState, type ReactNode } from "react";
import { useUnits } from "../api/queries";
import { makeFormat, type Format, type System } from "../drawing/units";

export type Theme = "light" | "dark";
interface Settings {
  format: Format;
  system: System;
  setSystem(system: System): void;
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

export function SettingsProvider({ children }: { children: ReactNode }) {
  const units = useUnits();
  const [system, setSystem] = useState<System>(kept("units") === "us" ? "us" : "metric");
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
      format: makeFormat(system, units.data ?? []),
      system,
      setSystem: (next) => {
        keep("units", next);
        setSystem(next);
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
    [system, theme, singleKeys, units.data],
  );
  return <Context value={value}>{children}</Context>;
}

export function useSettings(): Settings {
  const settings = use(Context);
  if (!settings) throw new Error("useSettings needs a SettingsProvider around it");
  return settings;
}

export const useFormat = (): Format => useSettings().format;
