import type { Clip } from "@/api/schema";

/** The stored schedule, its ends drawn out as far as the clip now reaches; the server knows what comes there. */
export function stretched(clip: Clip): Clip["schedule"] {
  const last = clip.schedule.length - 1;
  const level = (i: number) => clip.schedule[i] ?? { from: 0, to: 1, db: [0, 0] };
  const first = level(0);
  const before =
    first.from > clip.in
      ? [
          {
            from: clip.in,
            to: first.from,
            ...(first.gain ? { gain: [first.gain[0] ?? 0, 0] } : { db: [first.db?.[0] ?? 0, 0] }),
          },
        ]
      : [];
  const end = level(last);
  const sum = (values: number[] | undefined) => (values ?? []).reduce((a, b) => a + b, 0);
  const after =
    end.to < clip.in + clip.length
      ? [
          {
            from: end.to,
            to: clip.in + clip.length,
            ...(end.gain ? { gain: [sum(end.gain), 0] } : { db: [sum(end.db), 0] }),
          },
        ]
      : [];
  return [...before, ...clip.schedule, ...after];
}
