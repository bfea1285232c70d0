/** "centre", "30 left". */
export function formatPan(pan: number): string {
  return Math.abs(pan) < 0.005
    ? "centre"
    : `${Math.round(Math.abs(pan) * 100)} ${pan < 0 ? "left" : "right"}`;
}

/** A pan as people type it: "30 left", "L30", "-30", "0.3", "centre"; null when it is none. */
export function parsePan(text: string): number | null {
  const plain = text.trim().toLowerCase().replace("−", "-").replace(",", ".").replace("%", "");
  if (/^(c|centre|center)$/.test(plain)) return 0;
  const found = /^(l|left|r|right)?\s*(-?\d+(?:\.\d+)?)\s*(l|left|r|right)?$/.exec(plain);
  const side = found?.[1] ?? found?.[3];
  if (!found?.[2] || (found[1] && found[3])) return null;
  const size = Number(found[2]);
  const part = Math.abs(size) <= 1 && found[2].includes(".") ? size : size / 100;
  const pan = side ? Math.abs(part) * (side.startsWith("l") ? -1 : 1) : part;
  return Math.abs(pan) <= 1 ? pan : null;
}
