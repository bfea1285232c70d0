import { type RefObject, useEffect } from "react";
import { useCanEdit, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import type { Target } from "./hit";
import { clipsInRange } from "./levels";
import type { TypeInRequest } from "./TypeIn";

/** What the pointer is over, and where. */
export interface Hovered {
  target: Target | null;
  x: number;
  y: number;
}

/** Typing a number over a wire, a keyframe or a range opens a field for it there. */
export function useTyping(
  hovered: RefObject<Hovered>,
  ramp: number,
  open: (request: TypeInRequest) => void,
): void {
  const store = useMixStore();
  const canEdit = useCanEdit();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      if (
        inField ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        !/^[-0-9.−]$/.test(event.key) ||
        !canEdit
      )
        return;
      const request = requestFor(hovered.current, store.getState(), ramp, event.key);
      if (!request) return;
      event.preventDefault();
      open(request);
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [hovered, store, canEdit, ramp, open]);
}

function requestFor(
  { target, x, y }: Hovered,
  state: MixState,
  ramp: number,
  text: string,
): TypeInRequest | null {
  const { edit, range } = state;
  switch (target?.kind) {
    case "keyframe": {
      const id = { clip: target.clip.id, keyframe: target.keyframe.at };
      return {
        x,
        y,
        text,
        label: "Keyframe",
        submit: (level) => edit({ edit: "set-keyframe", ...id, level }),
      };
    }
    case "wire":
      return {
        x,
        y,
        text,
        label: "Clip gain",
        submit: (gain) => edit({ edit: "set-clip-gain", clips: [target.clip.id], gain }),
      };
    case "dip": {
      if (!range) return null;
      const submit = async (typed: string) => {
        const by = amountOf(typed);
        if (by === null) {
          state.set({
            notice: { kind: "error", text: `“${typed}” is not an amount in dB. Type a number such as -11.` },
          });
          return false;
        }
        return edit({
          edit: "dip-range",
          clips: clipsInRange(state, range, target.clip),
          from: range.from,
          to: range.to,
          by,
          ramp,
        });
      };
      return { x, y, text, label: "Lift or dip by dB", submit };
    }
    default:
      return null;
  }
}

/** A difference in dB as typed; null when it is none. */
export function amountOf(text: string): number | null {
  const plain = text
    .trim()
    .replace("−", "-")
    .replace(",", ".")
    .replace(/\s*db$/i, "");
  return plain !== "" && Number.isFinite(Number(plain)) ? Number(plain) : null;
}
