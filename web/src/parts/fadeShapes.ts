import type { FadeShape } from "@/api/schema";

export const SHAPES: { shape: FadeShape; name: string }[] = [
  { shape: "equal-power", name: "equal power" },
  { shape: "linear", name: "linear" },
  { shape: "s", name: "S" },
  { shape: "exponential", name: "exponential" },
];
