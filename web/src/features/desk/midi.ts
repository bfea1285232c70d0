/**
 * Fader moves as MIDI 1.0 control changes: one channel for each strip, controller 7 (channel volume) with 39 for its lower seven
 * bits, controller 10 (pan) with 42. Source: MIDI 1.0 detailed specification, table of controller numbers.
 */
const CONTROL_CHANGE = 0xb0;
const LOWER = 32;
const CONTROLLERS = { level: 7, pan: 10 } as const;
const MOST = 0x3fff;

type Control = keyof typeof CONTROLLERS;

/** A control of a strip, and where it stands: 0 at one end, 1 at the other. */
export interface BankMove {
  strip: number;
  control: Control;
  place: number;
}

/** The two messages that say where a control stands; the upper bits first. */
export function encode({ strip, control, place }: BankMove): Uint8Array[] {
  const value = Math.round(Math.min(1, Math.max(0, place)) * MOST);
  const status = CONTROL_CHANGE | (strip & 15);
  const controller = CONTROLLERS[control];
  return [
    Uint8Array.of(status, controller, value >> 7),
    Uint8Array.of(status, controller + LOWER, value & 127),
  ];
}

/** Puts messages together again. A device without lower bits is understood, too. */
export class Decoder {
  private readonly upper = new Map<string, number>();
  /** What was said last: a fader that says again where it stands has not moved. */
  private readonly said = new Map<string, number>();

  /** The fader of a strip is put elsewhere from here, so whatever it says next is a move. */
  forget(strip: number): void {
    for (const key of this.said.keys()) if (key.startsWith(`${strip} `)) this.said.delete(key);
  }

  /** The move that a message makes, or null where it is none, or none of ours. */
  read(message: Uint8Array): BankMove | null {
    const [status = 0, controller = 0, value = 0] = message;
    if (message.length < 3 || (status & 0xf0) !== CONTROL_CHANGE || value > 127) return null;
    const isLower = controller >= LOWER && controller < 2 * LOWER;
    const number = isLower ? controller - LOWER : controller;
    const control = (Object.keys(CONTROLLERS) as Control[]).find((name) => CONTROLLERS[name] === number);
    if (!control) return null;
    const strip = status & 15;
    const key = `${strip} ${number}`;
    const [part, lowerPart] = [`${strip} ${controller}`, `${strip} ${number + LOWER}`];
    if (this.said.get(part) === value) return null;
    this.said.set(part, value);
    if (!isLower) {
      // Lower bits that follow belong to another place now, whatever they are.
      this.said.delete(lowerPart);
      this.upper.set(key, value);
      // Until lower bits come, both ends are still reached.
      return { strip, control, place: value / 127 };
    }
    const upper = this.upper.get(key);
    return upper === undefined ? null : { strip, control, place: ((upper << 7) | value) / MOST };
  }
}
