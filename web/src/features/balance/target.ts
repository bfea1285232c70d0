/** EBU R 128 allows half a LU either way. */
const TOLERANCE = 0.5;

/** How far a programme is off its loudness target, in a word or two. */
export function offTarget(integrated: number, target: number): "on target" | `${string} ${"over" | "under"}` {
  const over = integrated - target;
  return Math.abs(over) <= TOLERANCE
    ? "on target"
    : `${Math.abs(over).toFixed(1)} ${over > 0 ? "over" : "under"}`;
}
