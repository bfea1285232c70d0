import { useSyncExternalStore } from "react";

export type Theme = "day" | "night";

const KEY = "wattage-theme";
const listeners = new Set<() => void>();

function current(): Theme {
  return document.documentElement.dataset.theme === "night" ? "night" : "day";
}

export function startTheme(): void {
  const saved = localStorage.getItem(KEY);
  const night = saved ? saved === "night" : matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.dataset.theme = night ? "night" : "day";
}

export function switchTheme(): void {
  const next = current() === "day" ? "night" : "day";
  document.documentElement.dataset.theme = next;
  localStorage.setItem(KEY, next);
  listeners.forEach((tell) => tell());
}

export function useTheme(): Theme {
  return useSyncExternalStore((tell) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  }, current);
}
