/** Share of the bar at a level: linear in dB from −60 to 0. */
export function share(db: number): number {
  return Math.min(1, Math.max(0, (db + 60) / 60));
}

/** One channel's peak. Above full scale it is hatched, not only of another colour. */
export function MeterBar({ db, thin = false }: { db: number; thin?: boolean }) {
  return (
    <div className={`overflow-hidden rounded-[1px] bg-sunk ${thin ? "h-[3px]" : "h-[5px]"}`}>
      <div
        className="h-full origin-left bg-speech"
        style={{
          transform: `scaleX(${share(db)})`,
          ...(db > 0
            ? {
                backgroundImage:
                  "repeating-linear-gradient(45deg, var(--trouble) 0 3px, transparent 3px 5px)",
              }
            : {}),
        }}
      />
    </div>
  );
}
