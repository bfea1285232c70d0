import { share } from "./MeterBar";

/** One channel's peak, upright. Above full scale it is hatched, not only of another colour. */
export function MeterColumn({ db, ink }: { db: number; ink: string }) {
  return (
    <div className="h-full w-[4px] overflow-hidden rounded-[1px] bg-sunk">
      <div
        className={`size-full origin-bottom ${db > 0 ? "hatched" : ""}`}
        style={{ transform: `scaleY(${share(db)})`, background: db > 0 ? undefined : `var(--${ink})` }}
      />
    </div>
  );
}
