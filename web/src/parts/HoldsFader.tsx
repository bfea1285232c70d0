import { useMix } from "@/store/context";

/** Who has a hand on the fader of a track, if anybody else has. */
export function HoldsFader({ track }: { track: string }) {
  const names = useMix((s) =>
    s.people
      .filter((p) => p.holds === `fader:${track}`)
      .map((p) => p.name)
      .join(", "),
  );
  if (!names) return null;
  return (
    <span className="pointer-events-none absolute top-0.5 right-1 z-10 max-w-full truncate rounded bg-ink px-1.5 text-mark font-semibold text-paper">
      {names}
    </span>
  );
}
