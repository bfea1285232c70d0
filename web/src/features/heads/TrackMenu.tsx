import { MoreHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { Edit, Track } from "@/api/schema";
import { useMix, useMixStore } from "@/store/context";
import { clipsOf } from "@/store/mixStore";
import { useDesk } from "@/commands/deskContext";
import { Menu, MenuItem, MenuLine, MenuTitle } from "@/parts/Menu";
import { HUES, STEMS } from "@/parts/stems";

/** What can become of the lanes that a track has. Clip keyframes travel with the sound, lanes stay on the timeline. */
function laneEdits(
  { id, lanes, ducking, band }: Track,
  curved: boolean,
): { key: string; title: string; edit: Edit }[] {
  const found: { key: string; title: string; edit: Edit }[] = [];
  const add = (title: string, edit: Edit) => found.push({ key: title, title, edit });
  if (ducking) {
    add("Ducking into clip keyframes", { edit: "convert-lane", track: id, from: "ducking", to: "clips" });
    add("Ducking into the level lane", { edit: "convert-lane", track: id, from: "ducking", to: "level" });
    if (ducking.held || band?.held)
      add("Let go of corrections in ducking", { edit: "release-held", track: id });
    add("Clear ducking", { edit: "clear-lane", track: id, lane: "ducking" });
  }
  if (band) {
    add("Band of speech into the level lane: all of it goes down", {
      edit: "convert-lane",
      track: id,
      from: "band",
      to: "level",
    });
    add("Clear the band of speech", { edit: "clear-lane", track: id, lane: "band" });
  }
  if (curved)
    add("Clip keyframes into the level lane", {
      edit: "convert-lane",
      track: id,
      from: "clips",
      to: "level",
    });
  if (lanes?.level) {
    add("Level lane into clip keyframes", { edit: "convert-lane", track: id, from: "level", to: "clips" });
    add("Clear the level lane", { edit: "clear-lane", track: id, lane: "level" });
  }
  if (lanes?.pan) add("Clear the pan lane", { edit: "clear-lane", track: id, lane: "pan" });
  if (lanes?.mute) add("Clear the mute lane", { edit: "clear-lane", track: id, lane: "mute" });
  return found;
}

/** What can be done to a track as a whole. */
export function TrackMenu(props: { track: Track; onRename: () => void }) {
  return (
    <Menu
      trigger={
        <button
          type="button"
          className="button button-quiet size-6 p-0 text-faint"
          aria-label={`More for ${props.track.name}`}
        >
          <MoreHorizontal size={15} />
        </button>
      }
    >
      <TrackItems {...props} />
    </Menu>
  );
}

/** What that menu holds, also where it opens on the head itself. */
export function TrackItems({ track, onRename }: { track: Track; onRename: () => void }) {
  const store = useMixStore();
  const edit = store.getState().edit;
  const desk = useDesk();
  const empty = useMix((s) => !Object.values(s.clips).some((clip) => clip.track === track.id));
  const curved = useMix((s) =>
    Object.values(s.clips).some((c) => c.track === track.id && c.curve.length > 0),
  );
  const lanes = laneEdits(track, curved);
  const hidden = useMix((s) => s.hiddenWires.includes(track.id));
  const tall = useMix((s) => s.heights[track.id] !== undefined);
  const shift = (by: number) => {
    const { tracks } = store.getState();
    const place = tracks.findIndex((t) => t.id === track.id) + by;
    void edit({
      edit: "place-track",
      track: track.id,
      place: Math.max(0, Math.min(place, tracks.length - 1)),
    });
  };
  const toggleWires = () => {
    const { hiddenWires, set } = store.getState();
    set({ hiddenWires: hidden ? hiddenWires.filter((id) => id !== track.id) : [...hiddenWires, track.id] });
  };
  const level = (sheet: "even-up" | "steady") => {
    const { clips, set } = store.getState();
    set({ selected: clipsOf(clips, track.id).map((clip) => clip.id), chosen: [] });
    desk?.show(sheet);
  };
  const resetHeight = () => {
    const others = Object.entries(store.getState().heights).filter(([id]) => id !== track.id);
    store.getState().set({ heights: Object.fromEntries(others) });
  };
  return (
    <>
      <MenuItem onSelect={onRename}>Rename…</MenuItem>
      <MenuItem onSelect={() => shift(-1)}>Move up</MenuItem>
      <MenuItem onSelect={() => shift(1)}>Move down</MenuItem>
      <MenuItem onSelect={() => void edit({ edit: "set-locked", track: track.id, locked: !track.locked })}>
        {track.locked ? "Unlock" : "Lock: keep its clips as they are"}
      </MenuItem>
      <MenuItem onSelect={toggleWires}>{hidden ? "Show wires" : "Hide wires"}</MenuItem>
      {tall && <MenuItem onSelect={resetHeight}>Usual height</MenuItem>}
      <MenuLine />
      {(["even-up", "steady"] as const).map((sheet) => (
        <MenuItem key={sheet} reason={empty ? "it has no clips" : undefined} onSelect={() => level(sheet)}>
          {sheet === "steady" ? "Steady the speech of all its clips…" : "Even up all its clips…"}
        </MenuItem>
      ))}
      <MenuLine />
      {lanes.map(({ key, title, edit: change }) => (
        <MenuItem key={key} onSelect={() => void edit(change)}>
          {title}
        </MenuItem>
      ))}
      {lanes.length > 0 && <MenuLine />}
      <MenuTitle>Kind of sound</MenuTitle>
      <DropdownMenu.RadioGroup value={track.stem}>
        {STEMS.map(({ stem, name }) => (
          <DropdownMenu.RadioItem
            key={stem}
            value={stem}
            className="cursor-pointer rounded px-2 py-1 outline-none data-[highlighted]:bg-sunk"
            onSelect={() => void edit({ edit: "set-stem", track: track.id, stem })}
          >
            {track.stem === stem ? "● " : "○ "}
            {name}
          </DropdownMenu.RadioItem>
        ))}
      </DropdownMenu.RadioGroup>
      <MenuLine />
      <MenuTitle>Ink</MenuTitle>
      <div className="flex gap-1 px-2 py-1">
        {[undefined, ...HUES].map((hue) => (
          <DropdownMenu.Item
            key={hue ?? "own"}
            aria-label={hue ?? "that of its kind"}
            className={`size-5 cursor-pointer rounded-full border-2 outline-none data-[highlighted]:outline-2 data-[highlighted]:outline-copper ${track.hue === hue ? "border-ink" : "border-transparent"}`}
            style={{ background: `var(--${hue ?? track.stem})` }}
            onSelect={() => void edit({ edit: "set-hue", track: track.id, ...(hue ? { hue } : {}) })}
          />
        ))}
      </div>
      <MenuLine />
      <MenuItem trouble onSelect={() => void edit({ edit: "remove-track", track: track.id })}>
        Remove track and its clips
      </MenuItem>
    </>
  );
}
