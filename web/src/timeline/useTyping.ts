import { type RefObject, useEffect } from "react";
import { flushSync } from "react-dom";
import type { Marker, WireId } from "@/api/schema";
import { useCanEdit, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import { typedPan } from "@/store/typedPan";
import { rampsFor } from "@/store/screen";
import { wireIn } from "@/store/wires";
import { type Target, typedAt } from "@/scene/hit";
import { wiresInRange } from "@/scene/levels";
import type { Scene } from "@/scene/scene";
import type { TypeInRequest } from "./TypeIn";

/** Where the pointer is over the timeline; null where it is not. */
export type Pointer = { x: number; y: number } | null;

/** Typing a number over a wire, a keyframe, a fade or a range opens a field for it there. */
export function useTyping(
  pointer: RefObject<Pointer>,
  scene: Scene,
  open: (request: TypeInRequest) => void,
): void {
  const store = useMixStore();
  const canEdit = useCanEdit();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      const inDialog = event.target instanceof Element && event.target.closest("[role=dialog], [role=menu]");
      const modified = event.ctrlKey || event.metaKey || event.altKey;
      if (inField || inDialog || modified || !/^[-+0-9.−]$/.test(event.key) || !canEdit) return;
      const at = pointer.current;
      if (!at) return;
      // What is there now, which is not what was there when the pointer came.
      const target = typedAt(scene, at.x, at.y);
      const request = typeInFor({ target, ...at }, store.getState(), event.key);
      if (!request) return;
      event.preventDefault();
      event.stopPropagation();
      // At once, so that the next digit already finds the field.
      flushSync(() => open(request));
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [pointer, scene, store, canEdit, open]);
}

/** The field that typing over a target opens. */
export function typeInFor(
  { target, x, y }: { target: Target | null; x: number; y: number },
  state: MixState,
  text: string,
): TypeInRequest | null {
  const { edit, range, settings } = state;
  const at = { x, y, text };
  switch (target?.kind) {
    case "keyframe": {
      const id = { ...target.wire, keyframe: target.keyframe.at };
      return { ...at, label: "Keyframe", submit: (level) => edit({ edit: "set-keyframe", ...id, level }) };
    }
    case "wire": {
      const { wire } = target;
      if ("track" in wire) return ofLane(state, wire, at);
      const { clip, channel } = wire;
      if (channel)
        return {
          ...at,
          label: `Gain, ${channel}`,
          submit: (gain) => edit({ edit: "set-channel", clip, channel, gain }),
        };
      const clips = state.selected.includes(clip) ? state.selected : [clip];
      const hasCurve = (wireIn(state, wire)?.curve.length ?? 0) > 0;
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
    case "pan-point":
    case "pan-range":
      return ofPan(state, target, at);
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
      const submit = (typed: string) => {
        const by = amountOf(typed) ?? typed;
        const { from, to } = range;
        return edit({
          edit: "dip-range",
          ...wiresInRange(state, range, target.wire),
          from,
          to,
          by,
          ...rampsFor(settings, Number(by) || -1),
        });
      };
      return { ...at, label: "Lift or dip by dB", submit };
    }
    default:
      return null;
  }
}

/** On a lane without keyframes it is the fader; else all of it, higher or lower by what is typed. */
function ofLane(
  state: MixState,
  wire: Extract<WireId, { track: string }>,
  at: { x: number; y: number; text: string },
): TypeInRequest | null {
  const { edit } = state;
  const curve = wireIn(state, wire)?.curve ?? [];
  if (curve.length === 0 && wire.lane !== "level") return null;
  if (curve.length === 0)
    return {
      ...at,
      label: "Fader",
      submit: (fader) => edit({ edit: "set-fader", track: wire.track, fader }),
    };
  const chosen = [{ ...wire, keyframes: curve.map((k) => k.at) }];
  const submit = (text: string) => {
    const by = amountOf(text);
    if (by !== null) return edit({ edit: "move-keyframes", chosen, later: 0, by });
    const why = `“${text}” is not a number of dB.`;
    state.set({ notice: { kind: "error", text: why } });
    return Promise.resolve(false);
  };
  return { ...at, label: `Whole ${wire.lane} lane by dB`, submit };
}

function ofPan(
  state: MixState,
  target: Extract<Target, { kind: "pan-point" | "pan-range" }>,
  at: { x: number; y: number; text: string },
): TypeInRequest | null {
  const { edit, range, settings } = state;
  const track = target.lane.track.id;
  const submit = (text: string) => {
    const pan = typedPan(state, text);
    if (pan === null) return Promise.resolve(false);
    if (target.kind === "pan-point") return edit({ edit: "set-pan-point", track, point: target.at, pan });
    const { from, to } = range ?? { from: 0, to: 1 };
    return edit({ edit: "set-pan-range", track, from, to, pan, ramp: settings.ramp });
  };
  return { ...at, label: "Pan, − is left", submit };
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
