import { useCallback, useEffect, useState } from "react";
import type { View } from "@/scene/geometry";
import { keep, readKept } from "@/lib/kept";
import type { Room } from "./TopBar";

const placeOf = (project: string) => `wattage-place-${project}`;
const roomOf = (project: string) => `wattage-room-${project}`;

interface Place {
  view: View;
}

/** Keeps which part of the programme is looked at, and tells which one was when the project was last left. */
export function useKeptPlace(project: string, view: View): Place | null {
  const [kept] = useState(() => JSON.parse(localStorage.getItem(placeOf(project)) ?? "null") as Place | null);
  useEffect(() => {
    // Scrolling changes it many times a second.
    const timer = setTimeout(() => keep(placeOf(project), { view }), 300);
    return () => clearTimeout(timer);
  }, [project, view]);
  return kept;
}

/** The room one is in; a project opens in the one it was left in. */
export function useKeptRoom(project: string): [Room, (room: Room) => void] {
  const [room, setRoom] = useState(() => readKept<Room>(roomOf(project)) ?? "balance");
  const change = useCallback(
    (next: Room) => {
      keep(roomOf(project), next);
      setRoom(next);
    },
    [project],
  );
  return [room, change];
}
