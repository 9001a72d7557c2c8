import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import type { UnitSystem } from "../units/parse";

type Theme = "day" | "evening";
type Settings = {
  system: UnitSystem;
  theme: Theme;
  switchUnits: () => void;
  switchTheme: () => void;
};

const SettingsContext = createContext<Settings | null>(null);

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
    // A browser that keeps nothing still works; it only forgets the choice.
  }
}

/** Unit system and theme: a choice of the person at this screen, not of the plan. */
export function SettingsProvider({ children }: { children: ReactNode }) {
  const [system, setSystem] = useState<UnitSystem>(kept("units") === "inch" ? "inch" : "metric");
  const [theme, setTheme] = useState<Theme>(kept("theme") === "evening" ? "evening" : "day");
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
    keep("theme", theme);
  }, [theme]);
  useEffect(() => keep("units", system), [system]);
  const value = useMemo<Settings>(
    () => ({
      system,
      theme,
      switchUnits: () => setSystem((now) => (now === "metric" ? "inch" : "metric")),
      switchTheme: () => setTheme((now) => (now === "day" ? "evening" : "day")),
    }),
    [system, theme],
  );
  return <SettingsContext value={value}>{children}</SettingsContext>;
}

export function useSettings(): Settings {
  const settings = useContext(SettingsContext);
  if (!settings) throw new Error("SettingsProvider is missing");
  return settings;
}
