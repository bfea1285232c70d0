import { useCallback, useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Level, OpenedMix, Source } from "@/api/schema";
import { Player } from "@/player";
import { decibelsOf } from "@/lib/format";
import { useMix } from "@/store/context";
import type { MixPort } from "@/store/sync";
import { createMixStore, USUAL_AIM, USUAL_FADERS } from "@/store/mixStore";

const refused = () => Promise.reject(new Error("There is nothing to edit while listening to a source."));
const NOBODY = { id: "", name: "" };
const PORT: MixPort = { mix: refused, changes: refused, step: refused };

interface Heard {
  source: string;
  length: number;
  player: Player;
  stop: () => void;
}

/** Listening to one source by itself, with its gain, through a player of its own. */
export function useListening() {
  const gainNow = useMix((s) => s.sources);
  const heard = useRef<Heard | null>(null);
  const [source, setSource] = useState<string | null>(null);
  const [moment, setMoment] = useState<{ share: number; peaks: [number, number] }>({
    share: 0,
    peaks: [-Infinity, -Infinity],
  });
  const stop = useCallback(() => {
    heard.current?.stop();
    heard.current = null;
    setSource(null);
  }, []);
  const start = useCallback((wanted: Source, gain: Level) => {
    heard.current?.stop();
    const store = createMixStore(PORT, alone(wanted, gain));
    const player = new Player(store, api.segment);
    const detach = player.attach();
    heard.current = { source: wanted.id, length: wanted.frames ?? 1, player, stop: detach };
    setSource(wanted.id);
    void player.play(0);
  }, []);
  useEffect(() => {
    if (source === null) return;
    const timer = setInterval(() => {
      const now = heard.current;
      if (now)
        setMoment({ share: now.player.position / now.length, peaks: now.player.levels().programme.peak });
    }, 60);
    return () => clearInterval(timer);
  }, [source]);
  // A gain that is changed while listening is heard from the start of what is now played anew.
  const gain = source === null ? null : JSON.stringify(gainNow[source] ?? null);
  const before = useRef(gain);
  useEffect(() => {
    if (before.current !== gain && gain !== null && heard.current && before.current !== null) stop();
    before.current = gain;
  }, [gain, stop]);
  useEffect(() => () => heard.current?.stop(), []);
  return { source, start, stop, ...moment };
}

/** A mix of nothing but the source. */
function alone(source: Source, gain: Level): OpenedMix {
  const length = source.frames ?? 1;
  const level = Math.max(-144, decibelsOf(gain));
  const none = { length: 0, shape: "equal-power" as const };
  return {
    me: NOBODY,
    project: { id: "", name: source.name, role: "viewer" },
    mix: {
      rate: 48000,
      frameRate: "25",
      length,
      aim: USUAL_AIM,
      captions: [],
      faders: USUAL_FADERS,
      rules: [],
      sources: [{ id: source.id, name: source.name, length, channels: source.channels ?? 1, gain }],
      tracks: [{ id: "alone", name: source.name, stem: "speech", fader: 0, pan: 0, muted: false }],
      clips: [
        {
          id: "alone",
          track: "alone",
          source: source.id,
          name: source.name,
          at: 0,
          in: 0,
          length,
          gain: 0,
          curve: [],
          level,
          schedule: [{ from: 0, to: length, db: [0, 0] }],
          parts: [{ routing: [1, 0, 0, 1] }],
          fades: [none, none],
        },
      ],
      markers: [],
      pictures: [],
      strip: [],
    },
    revision: 0,
    label: "",
    author: NOBODY,
    before: null,
    canUndo: false,
    canRedo: false,
  };
}
