import { useMemo, useState } from "react";
import { api } from "@/api/client";
import { Frames } from "./frames";
import { Outlines } from "./outlines";
import { Samples } from "./samples";

/** All that is drawn of recordings: outlines of any length, their samples where they are looked at closely, and their pictures. */
export interface Sounds {
  outlines: Outlines;
  samples: Samples;
  frames: Frames;
  /** Changes whenever more of a source has come. */
  version: (source: string) => number;
}

export function useSounds(rate: number): { sounds: Sounds; arrived: number } {
  const [arrived, setArrived] = useState(0);
  const sounds = useMemo(() => {
    const came = () => setArrived((n) => n + 1);
    const outlines = new Outlines(api.outline, api.average, came);
    const samples = new Samples(rate, api.segment, came);
    const frames = new Frames(api.cuts, came);
    return { outlines, samples, frames, version: (id: string) => outlines.version(id) + samples.version(id) };
  }, [rate]);
  return { sounds, arrived };
}
