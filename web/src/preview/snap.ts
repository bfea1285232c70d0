/** The nearest of some positions within reach, or the position itself. */
export function snapTo(position: number, targets: number[], reach: number): number {
  let best = position;
  let distance = reach;
  for (const target of targets) {
    const d = Math.abs(target - position);
    if (d < distance) {
      distance = d;
      best = target;
    }
  }
  return best;
}
