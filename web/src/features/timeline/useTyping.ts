import { type RefObject, useEffect } from "react";
import type { Marker } from "@/api/types";
import { curveOf } from "@/store/chosen";
import { useCanEdit, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import type { Target } from "./hit";
import { wireOf } from "./levelGestures";
import { clipsInRange } from "./levels";
import type { TypeInRequest } from "./TypeIn";

/** What the pointer is over, and where. */
export interface Hovered {
  target: Target | null;
  x: number;
  y: number;
}

/** Typing a number over a wire, a keyframe, a fade or a range opens a field for it there. */
export function useTyping(hovered: RefObject<Hovered>, open: (request: TypeInRequest) => void): void {
  const store = useMixStore();
  const canEdit = useCanEdit();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      const inDialog = event.target instanceof Element && event.target.closest("[role=dialog], [role=menu]");
      const modified = event.ctrlKey || event.metaKey || event.altKey;
      if (inField || inDialog || modified || !/^[-0-9.−]$/.test(event.key) || !canEdit) return;
      const request = requestFor(hovered.current, store.getState(), event.key);
      if (!request) return;
      event.preventDefault();
      event.stopPropagation();
      open(request);
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [hovered, store, canEdit, open]);
}

function requestFor({ target, x, y }: Hovered, state: MixState, text: string): TypeInRequest | null {
  const { edit, range, settings } = state;
  const at = { x, y, text };
  switch (target?.kind) {
    case "keyframe": {
      const id = { ...wireOf(target.clip, target.channel), keyframe: target.keyframe.at };
      return { ...at, label: "Keyframe", submit: (level) => edit({ edit: "set-keyframe", ...id, level }) };
    }
    case "wire": {
      const { clip, channel } = target;
      if (channel)
        return {
          ...at,
          label: `Gain, ${channel}`,
          submit: (gain) => edit({ edit: "set-channel", clip: clip.id, channel, gain }),
        };
      const clips = state.selected.includes(clip.id) ? state.selected : [clip.id];
      const hasCurve = curveOf(clip).length > 0;
      return {
        ...at,
        label:
          clips.length > 1
            ? `Gain of ${clips.length} clips`
            : hasCurve
              ? "Gain of the whole clip"
              : "Clip gain",
        submit: (gain) => edit({ edit: "set-clip-gain", clips, gain }),
      };
    }
    case "fade": {
      const { clip, edge } = target;
      const clips = state.selected.includes(clip.id) ? state.selected : [clip.id];
      return {
        ...at,
        label: `Fade ${edge}, s or f`,
        submit: (length) => edit({ edit: "set-fade", clips, edge, length }),
      };
    }
    case "cross": {
      const [a, b] =
        target.clip.at < target.other.at ? [target.clip, target.other] : [target.other, target.clip];
      return {
        ...at,
        label: "Cross over, s or f",
        submit: (length) => edit({ edit: "cross-over", earlier: a.id, later: b.id, length }),
      };
    }
    case "dip": {
      if (!range) return null;
      const { ramp, inside } = settings;
      const channel = target.channel ? { channel: target.channel } : {};
      const submit = async (typed: string) => {
        const by = amountOf(typed);
        const clips = clipsInRange(state, range);
        return edit({
          edit: "dip-range",
          clips,
          from: range.from,
          to: range.to,
          by: by ?? typed,
          ramp,
          inside,
          ...channel,
        });
      };
      return { ...at, label: "Lift or dip by dB", submit };
    }
    default:
      return null;
  }
}

/** The field in which a marker gets another name. */
export function renaming(state: MixState, marker: Marker, x: number, y: number): TypeInRequest {
  return {
    x,
    y,
    text: marker.name,
    label: "Name",
    submit: (name) => state.edit({ edit: "set-marker", marker: marker.id, name }),
  };
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
