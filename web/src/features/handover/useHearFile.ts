import { useEffect, useRef, useState } from "react";
import type { Delivery } from "@/api/schema";
import { usePlayer } from "@/player";
import { useMixStore } from "@/store/context";

export interface HearFile {
  /** Id of the file that is heard; null for none. */
  file: string | null;
  listen: (file: Delivery) => void;
  /** To the mix, at the moment that is heard. */
  back: () => void;
}

/** Lets a finished file be heard from the moment where the mix is, and the mix again from where the file is: no louder than the mix. */
export function useHearFile(): HearFile {
  const player = usePlayer();
  const store = useMixStore();
  const [file, setFile] = useState<string | null>(null);
  const audio = useRef<HTMLAudioElement | null>(null);
  const began = useRef(0);
  const stop = () => {
    audio.current?.pause();
    audio.current = null;
    setFile(null);
  };
  useEffect(() => () => audio.current?.pause(), []);
  // Whoever plays the mix wants to hear the mix.
  useEffect(
    () =>
      store.subscribe((now, before) => {
        if (now.playing && !before.playing) stop();
      }),
    [store],
  );
  return {
    file,
    listen: (wanted) => {
      audio.current?.pause();
      const { rate, figures } = store.getState();
      began.current = (wanted.order.range?.from ?? 0) / rate;
      const at = player.position / rate - began.current;
      player.stop();
      const sound = new Audio(`/api/deliveries/${wanted.id}/file`);
      sound.currentTime = Math.max(0, at < (wanted.outcome?.seconds ?? 0) ? at : 0);
      const louder = (wanted.outcome?.integrated ?? -70) - (figures?.programme.integrated ?? -70);
      sound.volume = louder > 0 ? 10 ** (-louder / 20) : 1;
      sound.addEventListener("ended", stop);
      audio.current = sound;
      setFile(wanted.id);
      void sound.play().catch(stop);
    },
    back: () => {
      const { rate } = store.getState();
      const at = ((audio.current?.currentTime ?? 0) + began.current) * rate;
      stop();
      void player.play(Math.round(at));
    },
  };
}
