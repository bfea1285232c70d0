import { createContext, useContext } from "react";
import { useStore } from "zustand";
import type { MixState, MixStore } from "./mixStore";

export const MixContext = createContext<MixStore | null>(null);

export function useMixStore(): MixStore {
  const store = useContext(MixContext);
  if (!store) throw new Error("There is no open project here.");
  return store;
}

export function useMix<T>(select: (state: MixState) => T): T {
  return useStore(useMixStore(), select);
}

export function useCanEdit(): boolean {
  return useMix((s) => s.project.role !== "viewer");
}
