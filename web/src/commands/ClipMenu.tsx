import { ChevronDown } from "lucide-react";
import type { Clip, Edit } from "@/api/schema";
import { useMix, useMixStore } from "@/store/context";
import { Menu, MenuItem, MenuLine, MenuTitle } from "@/parts/Menu";
import { CommandItem } from "./CommandItem";

const ALL_PARTS = ["curve", "fades", "gain", "channels"] as const;

/** All that can be done to the selected clips, each with its key. */
export function ClipMenu({ clip }: { clip: Clip }) {
  return (
    <Menu
      trigger={
        <button type="button" className="button px-2 py-0.5">
          Do <ChevronDown size={13} aria-hidden />
        </button>
      }
    >
      <ClipItems clip={clip} />
    </Menu>
  );
}

/** What that menu holds, also where it opens on the clip itself. */
export function ClipItems({ clip }: { clip: Clip }) {
  const store = useMixStore();
  const clips = useMix((s) => s.selected);
  const range = useMix((s) => s.range);
  const clipboard = useMix((s) => s.clipboard);
  const hasPicture = useMix((s) => s.sources[clip.source]?.picture === true);
  const edit = (e: Edit) => void store.getState().edit(e);
  const several = clips.length > 1;
  return (
    <>
      <CommandItem id="split" />
      <CommandItem id="join" reason={several ? undefined : "select two clips that follow one another"} />
      <CommandItem id="duplicate" />
      <MenuItem
        reason={!range || range.to <= clip.at + clip.length ? "select a range that ends after it" : undefined}
        onSelect={() => range && edit({ edit: "loop-clip", clip: clip.id, until: range.to, overlap: "0" })}
      >
        Loop to the end of the range
      </MenuItem>
      <MenuItem
        reason={!range || range.to <= clip.at + clip.length ? "select a range that ends after it" : undefined}
        onSelect={() =>
          range && edit({ edit: "loop-clip", clip: clip.id, until: range.to, overlap: "0.5 s" })
        }
      >
        Loop there, turns crossing over
      </MenuItem>
      <CommandItem id="cross-over" />
      <MenuItem onSelect={() => edit({ edit: "set-clips-muted", clips, muted: !clip.muted })}>
        {clip.muted ? "Let it be heard again" : "Mute it"}
      </MenuItem>
      <CommandItem id="close-up" />
      {hasPicture &&
        (clip.detached ? (
          <MenuItem onSelect={() => edit({ edit: "attach-picture", clips })}>
            Attach its picture again
          </MenuItem>
        ) : (
          <MenuItem onSelect={() => edit({ edit: "detach-picture", clips })}>Detach its picture</MenuItem>
        ))}
      <MenuLine />
      <CommandItem id="even-up" />
      <CommandItem id="even-colour" />
      <CommandItem id="steady" />
      <CommandItem id="spread-track" />
      <CommandItem id="spread-range" reason={range ? undefined : "select a range first"} />
      <CommandItem id="copy" />
      <CommandItem id="paste" reason={clipboard ? undefined : "copy levels first"} />
      <MenuItem
        onSelect={() => edit({ edit: "set-part-in-ducking", clips, triggers: clip.triggers === false })}
      >
        {clip.triggers === false ? "Let it duck others again" : "Leave it out of what ducks others"}
      </MenuItem>
      <MenuItem onSelect={() => edit({ edit: "set-part-in-ducking", clips, ducked: clip.ducked === false })}>
        {clip.ducked === false ? "Let it give way again" : "Do not let it give way"}
      </MenuItem>
      <MenuLine />
      <MenuTitle>Reset</MenuTitle>
      {ALL_PARTS.map((part) => (
        <MenuItem key={part} onSelect={() => edit({ edit: "reset-clips", clips, parts: [part] })}>
          {part === "curve" ? "Curve" : part === "fades" ? "Fades" : part === "gain" ? "Gain" : "Channels"}
        </MenuItem>
      ))}
      <MenuItem onSelect={() => edit({ edit: "reset-clips", clips, parts: [...ALL_PARTS] })}>
        All levels
      </MenuItem>
      <MenuLine />
      <MenuItem trouble keys="Delete" onSelect={() => edit({ edit: "remove-clips", clips })}>
        Remove
      </MenuItem>
      <MenuItem
        trouble
        keys="Shift Delete"
        onSelect={() => edit({ edit: "remove-clips", clips, close: true })}
      >
        Remove and close the gap
      </MenuItem>
    </>
  );
}
