import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api } from "@/api/client";
import type { OpenedMix } from "@/api/schema";
import { Player, PlayerContext } from "@/player";
import { Recorder, RecorderContext } from "@/ride";
import { MixContext } from "@/store/context";
import { createMixStore, type MixStore } from "@/store/mixStore";
import { Unsent } from "@/store/unsent";
import { openedMix } from "./openedMix";
import { Workspace } from "./Workspace";

declare global {
  interface Window {
    /** For measurements from outside: tests count late segments here. */
    wattage?: { player: Player; store: MixStore };
  }
}

/** Opens a project: its mix in a store, and a player that follows it. */
export function Balance({ project, onClose }: { project: string; onClose: () => void }) {
  const client = useQueryClient();
  const { data: opened, error } = useQuery(openedMix(project));
  useEffect(() => () => client.removeQueries(openedMix(project)), [client, project]);
  if (error) {
    return (
      <div className="grid h-full place-content-center gap-4 text-center">
        <p role="alert">{error.message}</p>
        <button type="button" className="button justify-self-center" onClick={onClose}>
          To the projects
        </button>
      </div>
    );
  }
  return opened ? <Open opened={opened} onClose={onClose} /> : <p className="p-8 text-faint">Opening…</p>;
}

function Open({ opened, onClose }: { opened: OpenedMix; onClose: () => void }) {
  const [{ store, player, recorder, unsent }] = useState(() => {
    const unsent = new Unsent(opened.project.id);
    const store = createMixStore(api, opened, unsent);
    const player = new Player(store, api.segment);
    return { store, player, unsent, recorder: new Recorder(store, player) };
  });
  useEffect(() => {
    window.wattage = { player, store };
    const { project, resume } = store.getState();
    if (project.role !== "viewer") void unsent.takeLeftovers(resume);
    const detach = player.attach();
    const stopRecording = recorder.attach();
    return () => {
      stopRecording();
      detach();
      delete window.wattage;
    };
  }, [store, player, recorder, unsent]);
  return (
    <MixContext value={store}>
      <PlayerContext value={player}>
        <RecorderContext value={recorder}>
          <Workspace onClose={onClose} />
        </RecorderContext>
      </PlayerContext>
    </MixContext>
  );
}
