import { useMemo, useState } from "react";
import { api } from "@/api/client";
import { Outlines } from "./outlines";

/** Outlines for a drawing, and how many have arrived so far: a reason to draw again. */
export function useOutlines(): { outlines: Outlines; arrived: number } {
  const [arrived, setArrived] = useState(0);
  const outlines = useMemo(() => new Outlines(api.outline, api.average, () => setArrived((n) => n + 1)), []);
  return { outlines, arrived };
}
