/** What a field can know by itself about what is typed, said before anything is sent; the server reads it all the same. */

import { looksLikeLength, looksLikeTime, numberIn } from "./parse";

const LEVEL = /^([-+−]?(?:\d{1,6}(?:[.,]\d{0,12})?|[.,]\d{1,12}))\s*(db|%)?$/i;
const SILENCE = /^(silence|[-−]\s*(inf|infinity|∞))$/i;

/**
 * @param most highest level there is, dB
 *
 * @returns why it is no level; null when it is one
 */
export function notALevel(text: string, most: number): string | null {
  const plain = text.trim();
  if (SILENCE.test(plain)) return null;
  const found = LEVEL.exec(plain);
  if (!found) return `“${plain}” is not a level. Type dB (−6), a part (80%), or -inf for silence.`;
  const number = Number(found[1]?.replace("−", "-").replace(",", "."));
  const db = found[2] === "%" ? 20 * Math.log10(Math.max(1e-9, number / 100)) : number;
  if (found[2] === "%" && number < 0) return `${plain} is less than nothing. Type 0% or more.`;
  return db > most + 1e-9 ? `It goes up to +${most} dB. Type +${most} or less.` : null;
}

/** @returns why it is no moment; null when it is one */
export function notATime(text: string): string | null {
  const plain = text.trim();
  return looksLikeTime(plain) ? null : `“${plain}” is not a time. Type 00:00:58:05 or 0:58.2.`;
}

/** @returns why it is no length; null when it is one */
export function notALength(text: string): string | null {
  const plain = text.trim();
  return looksLikeLength(plain)
    ? null
    : `“${plain}” is not a length. Type seconds (0.4), 250 ms, or frames (12f).`;
}

/**
 * @param least smallest that is taken
 * @param most largest that is taken
 *
 * @returns why it is no number in that range; null when it is one
 */
export function notANumber(text: string, least: number, most: number, unit: string): string | null {
  const plain = text.trim();
  const number = numberIn(plain);
  const range = `from ${signed(least)} to ${signed(most)} ${unit}`;
  if (number === null) return `“${plain}” is not a number. Type one ${range}.`;
  return number < least || number > most ? `It goes ${range}. Type one of these.` : null;
}

function signed(number: number): string {
  return String(number).replace("-", "−");
}
