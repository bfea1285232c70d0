import { frameAt, sampleOfFrame } from "@/preview/timecode";
import { clampView } from "@/scene/viewport";
import type { MixState } from "@/store/mixStore";
import type { Listening, Speed } from "@/store/screen";
import { type CommandGroup, type Desk, here, refuse, selectedClips } from "./command";

function step(desk: Desk, state: MixState, frames: number): void {
  const frame = frameAt(here(desk, state), state.rate, state.frameRate) + frames;
  desk.player.seek(Math.min(sampleOfFrame(Math.max(0, frame), state.rate, state.frameRate), state.length));
}

function skip(desk: Desk, state: MixState, seconds: number): void {
  desk.player.seek(Math.min(Math.max(0, here(desk, state) + seconds * state.rate), state.length));
}

function withTrack(state: MixState, act: (track: MixState["tracks"][number]) => void): void {
  const track = state.tracks.find((t) => t.id === selectedClips(state)[0]?.track);
  if (track) act(track);
  else refuse(state, "Select a clip first; then this works on its track.");
}

function next<T>(values: readonly T[], now: T): T {
  return values[(values.indexOf(now) + 1) % values.length] ?? now;
}

export const LISTENINGS: readonly Listening[] = ["all", "speech", "rest"];
export const SPEEDS: readonly Speed[] = [1, 0.5, 1.5];

export const LISTEN: CommandGroup = {
  title: "Listen",
  commands: [
    { id: "play", title: "Play, stop", keys: ["Space"], run: ({ player }) => player.toggle() },
    {
      id: "play-range",
      title: "Play from the start of the range",
      keys: ["Shift+Space"],
      run: ({ player }, s) => void player.play(s.range?.from ?? s.playhead),
    },
    {
      id: "again",
      title: "Stop, back to where it began; and again from there",
      keys: [","],
      run: ({ player }, s) => {
        const from = s.playedFrom ?? s.playhead;
        if (!s.playing) return void player.play(from);
        player.stop();
        s.set({ playhead: from });
      },
    },
    {
      id: "go-to",
      title: "Type a time to go to",
      keys: ["Enter"],
      run: (_d, s) => s.set({ typingTime: true }),
    },
    { id: "frame-back", title: "A frame back", keys: ["ArrowLeft"], run: (d, s) => step(d, s, -1) },
    { id: "frame-forth", title: "A frame forth", keys: ["ArrowRight"], run: (d, s) => step(d, s, 1) },
    { id: "second-back", title: "A second back", keys: ["Shift+ArrowLeft"], run: (d, s) => skip(d, s, -1) },
    { id: "second-forth", title: "A second forth", keys: ["Shift+ArrowRight"], run: (d, s) => skip(d, s, 1) },
    {
      id: "start",
      title: "To the start",
      keys: ["Home"],
      run: ({ player, setView }) => {
        player.seek(0);
        setView((v) => ({ ...v, start: 0 }));
      },
    },
    {
      id: "end",
      title: "To the end",
      keys: ["End"],
      run: ({ player, setView, width }, s) => {
        player.seek(s.length);
        setView((v) => clampView({ ...v, start: s.length - width * v.perPx * 0.9 }, width, s));
      },
    },
    {
      id: "loop",
      title: "Loop the range, on and off",
      keys: ["Q"],
      run: ({ player }, s) => {
        if (!s.range) return refuse(s, "Select a range first; then Q loops it.");
        s.set({ looping: !s.looping });
        if (!s.looping && s.playing) void player.play(s.range.from);
      },
    },
    {
      id: "listening",
      title: "Hear all, speech only, the rest only",
      keys: ["V"],
      run: (_d, s) => s.set({ listening: next(LISTENINGS, s.listening) }),
    },
    {
      id: "speed",
      title: "Usual, half, one and a half speed",
      keys: ["Y"],
      run: (_d, s) => s.set({ speed: next(SPEEDS, s.speed) }),
    },
    {
      id: "mute",
      title: "Mute the track of the selected clip",
      keys: ["U"],
      run: (_d, s) => withTrack(s, (t) => void s.edit({ edit: "set-muted", track: t.id, muted: !t.muted })),
    },
    {
      id: "solo",
      title: "Solo it, beside others",
      keys: ["X"],
      run: (_d, s) =>
        withTrack(s, ({ id }) =>
          s.set({ solo: s.solo.includes(id) ? s.solo.filter((t) => t !== id) : [...s.solo, id] }),
        ),
    },
    {
      id: "solo-alone",
      title: "Solo it alone",
      keys: ["Shift+X"],
      run: (_d, s) =>
        withTrack(s, ({ id }) => s.set({ solo: s.solo.length === 1 && s.solo[0] === id ? [] : [id] })),
    },
  ],
};
