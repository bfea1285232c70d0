import { useEffect } from "react";
import { usePlayer } from "@/features/player";
import { clampView, clipsInRange, fitAll, fitSpan, type View, zoomBy } from "@/features/timeline";
import { frameAt, sampleOfFrame } from "@/lib/timecode";
import { useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";

interface Options {
  width: number;
  setView: (change: (view: View) => View) => void;
  ramp: number;
  showKeys: () => void;
}

/** Amount of a dip by key when no dip was made before, in dB. */
const USUAL_DIP = -11;

export function useKeys({ width, setView, ramp, showKeys }: Options): void {
  const store = useMixStore();
  const player = usePlayer();
  useEffect(() => {
    const actions: Record<string, (event: KeyboardEvent, s: MixState) => void> = {
      " ": () => player.toggle(),
      ArrowLeft: (e, s) => player.seek(stepped(s, here(s), e.shiftKey, -1)),
      ArrowRight: (e, s) => player.seek(stepped(s, here(s), e.shiftKey, 1)),
      Home: () => {
        player.seek(0);
        setView((v) => ({ ...v, start: 0 }));
      },
      End: (_e, s) => {
        player.seek(s.length);
        setView((v) => clampView({ ...v, start: s.length - width * v.perPx * 0.9 }, width, s));
      },
      ArrowUp: (e, s) => nudge(s, e.shiftKey ? 0.1 : 1),
      ArrowDown: (e, s) => nudge(s, e.shiftKey ? -0.1 : -1),
      i: (_e, s) => setRange(s, { from: here(s) }),
      o: (_e, s) => setRange(s, { to: here(s) }),
      d: (_e, s) => dip(s),
      k: (_e, s) => addKeyframe(s),
      b: (_e, s) => stepKeyframe(s, -1),
      n: (_e, s) => stepKeyframe(s, 1),
      u: (_e, s) =>
        withTrack(s, (track) => void s.edit({ edit: "set-muted", track: track.id, muted: !track.muted })),
      x: (_e, s) =>
        withTrack(s, ({ id }) =>
          s.set({ solo: s.solo.includes(id) ? s.solo.filter((t) => t !== id) : [...s.solo, id] }),
        ),
      Delete: (_e, s) => remove(s),
      Backspace: (_e, s) => remove(s),
      Escape: (_e, s) => s.set(s.range ? { range: null } : { selected: [], keyframe: null, notice: null }),
      "+": (_e, s) => setView((v) => zoomBy(v, 1 / 1.5, width, s, here(s))),
      "=": (_e, s) => setView((v) => zoomBy(v, 1 / 1.5, width, s, here(s))),
      "-": (_e, s) => setView((v) => zoomBy(v, 1.5, width, s, here(s))),
      a: (_e, s) => setView(() => fitAll(width, s)),
      r: (_e, s) => {
        const { range } = s;
        if (range) setView(() => fitSpan(range.from, range.to, width, s));
        else
          s.set({
            notice: { kind: "error", text: "There is no range to show. Drag across a lane to select one." },
          });
      },
      "?": () => showKeys(),
    };
    const here = (s: MixState) => (s.playing ? player.position : s.playhead);
    const stepped = (s: MixState, from: number, bySecond: boolean, by: number) => {
      const to = bySecond
        ? from + by * s.rate
        : sampleOfFrame(Math.max(0, frameAt(from, s.rate, s.frameRate) + by), s.rate, s.frameRate);
      return Math.min(Math.max(0, to), s.length);
    };
    const selectedClip = (s: MixState) => (s.selected[0] === undefined ? undefined : s.clips[s.selected[0]]);
    const nudge = (s: MixState, by: number) => {
      const clip = selectedClip(s);
      if (!clip)
        s.set({ notice: { kind: "error", text: "Select a clip first; then the arrows change its level." } });
      else if (s.keyframe !== null)
        void s.edit({ edit: "move-keyframes", clip: clip.id, keyframes: [s.keyframe], later: 0, by });
      else void s.edit({ edit: "change-clip-gain", clips: s.selected, by });
    };
    const setRange = (s: MixState, part: { from?: number; to?: number }) => {
      const old = s.range ?? { from: 0, to: s.length, track: selectedClip(s)?.track ?? null };
      const next = { ...old, ...part };
      if (next.to > next.from) s.set({ range: next });
      else
        s.set({
          range:
            part.from === undefined
              ? { ...next, from: 0 }
              : { ...next, to: Math.max(s.length, next.from + 1) },
        });
    };
    const dip = (s: MixState) => {
      const { range } = s;
      const clip = selectedClip(s);
      const onTrack = Object.values(s.clips).find(
        (c) => range && c.track === range.track && c.at < range.to && c.at + c.length > range.from,
      );
      const target = range?.track === null ? clip : onTrack;
      if (!range || !target) {
        s.set({ notice: { kind: "error", text: "Select a range over a clip first; then D dips it." } });
        return;
      }
      const last = Number(/^(?:Dip|Lift) .* by ([\d.]+) dB/.exec(s.label)?.[1]);
      const by = s.label.startsWith("Dip ") && last ? -last : USUAL_DIP;
      void s.edit({
        edit: "dip-range",
        clips: clipsInRange(s, range, target),
        from: range.from,
        to: range.to,
        by,
        ramp,
      });
    };
    const addKeyframe = (s: MixState) => {
      const clip = selectedClip(s);
      const at = here(s);
      if (clip && at >= clip.at && at <= clip.at + clip.length)
        void s.edit({ edit: "add-keyframe", clip: clip.id, at });
      else
        s.set({
          notice: {
            kind: "error",
            text: "Select a clip and put the playhead over it; then K adds a keyframe there.",
          },
        });
    };
    const stepKeyframe = (s: MixState, by: number) => {
      const clip = selectedClip(s);
      const from = clip ? (s.keyframe ?? s.playhead - clip.at + clip.in) : 0;
      const found = by > 0 ? clip?.curve.find((k) => k.at > from) : clip?.curve.findLast((k) => k.at < from);
      if (clip && found) {
        s.set({ keyframe: found.at });
        player.seek(found.at - clip.in + clip.at);
      } else {
        const where = by > 0 ? "after" : "before";
        s.set({
          notice: {
            kind: "error",
            text: clip
              ? `“${clip.name}” has no keyframe ${where} this one.`
              : "Select a clip first; then B and N go through its keyframes.",
          },
        });
      }
    };
    const withTrack = (s: MixState, act: (track: MixState["tracks"][number]) => void) => {
      const track = s.tracks.find((t) => t.id === selectedClip(s)?.track);
      if (track) act(track);
      else s.set({ notice: { kind: "error", text: "Select a clip first; then this works on its track." } });
    };
    const remove = (s: MixState) => {
      const clip = selectedClip(s);
      if (!clip) return;
      if (s.keyframe !== null)
        void s.edit({ edit: "remove-keyframes", clip: clip.id, keyframes: [s.keyframe] });
      else void s.edit({ edit: "remove-clips", clips: s.selected });
    };
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        event.defaultPrevented ||
        target.closest(
          "input, textarea, select, [role=dialog], [role=menu], [role=alertdialog], [role=radiogroup]",
        )
      )
        return;
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
        event.preventDefault();
        void (event.shiftKey ? store.getState().redo() : store.getState().undo());
        return;
      }
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target.closest("[role=slider], [role=tab]") && event.key.startsWith("Arrow")) return;
      if (event.key === " " && target.closest("button, a") && !target.closest("[data-testid=timeline]"))
        return;
      const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!action) return;
      event.preventDefault();
      action(event, store.getState());
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [store, player, setView, width, ramp, showKeys]);
}
