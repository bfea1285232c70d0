/**
 * The S of a smooth ramp: it gathers speed evenly over the ease-out, keeps it, and loses it evenly over the ease-in.
 *
 * @param u way along the ramp, 0…1
 *
 * @returns way up, 0…1
 */
export function ease(u: number, easeOut = 0.5, easeIn = 0.5): number {
  const speed = 2 / (2 - easeOut - easeIn);
  if (u < easeOut) return (speed * u * u) / (2 * easeOut);
  if (u > 1 - easeIn) return 1 - (speed * (1 - u) ** 2) / (2 * easeIn);
  return speed * (u - easeOut / 2);
}
