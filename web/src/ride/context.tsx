import { createContext, useContext } from "react";
import type { Recorder } from "./recorder";

export const RecorderContext = createContext<Recorder | null>(null);

export function useRecorder(): Recorder {
  const recorder = useContext(RecorderContext);
  if (!recorder) throw new Error("There is no recorder here.");
  return recorder;
}
