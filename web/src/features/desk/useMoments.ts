import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { api } from "@/api/client";
import { useMoment } from "@/player";
import { useMix } from "@/store/context";

/** Loudness that stands at a moment, LUFS; null for silence, or where it is not known yet. */
export interface Loud {
  momentary: number | null;
  shortTerm: number | null;
}

const NOTHING: Loud = { momentary: null, shortTerm: null };

/** Momentary and short-term loudness at the moment that is heard: of "programme", a stem, or "track " and its id. */
export function useMoments(): (of: string) => Loud {
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.hearing?.revision ?? s.revision);
  const rate = useMix((s) => s.rate);
  const tenth = Math.floor((useMoment() * 10) / rate);
  const minute = Math.floor(tenth / 600);
  const ask = (wanted: number) => ({
    queryKey: ["moments", project, revision, wanted],
    queryFn: () => api.moments(project, revision, wanted),
    staleTime: Infinity,
    gcTime: 120_000,
  });
  const { data } = useQuery({ ...ask(minute), placeholderData: (old) => old });
  // The next minute is there when it begins.
  useQuery({ ...ask(minute + 1), enabled: tenth % 600 > 500 });
  const meters = useMemo(() => new Map(data?.meters.map((meter) => [meter.of, meter])), [data]);
  return useCallback(
    (of) => {
      const meter = meters.get(of);
      const at = tenth - minute * 600;
      return meter
        ? { momentary: meter.momentary[at] ?? null, shortTerm: meter.shortTerm[at] ?? null }
        : NOTHING;
    },
    [meters, tenth, minute],
  );
}
