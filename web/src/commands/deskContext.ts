import { createContext, useContext } from "react";
import type { Desk } from ".";

/** What commands work with, for menus that run them. */
export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk | null {
  return useContext(DeskContext);
}
