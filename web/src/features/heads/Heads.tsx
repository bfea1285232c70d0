import { Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { memo, type ReactNode } from "react";
import type { Stem } from "@/api/schema";
import { newId } from "@/lib/ids";
import { STEMS } from "@/parts/stems";
import { useLevels } from "@/player";
import { CAPTION, type Layout } from "@/scene/geometry";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { ClearanceHead } from "./ClearanceHead";
import { Head } from "./Head";

/** One head per track, beside its lane. Not drawn anew while the time scrolls by. */
export const Heads = memo(function Heads({ layout, width }: { layout: Layout; width: number }) {
  const levels = useLevels();
  const { clearance, horizon } = layout;
  return (
    <div className="relative shrink-0 border-r border-line bg-paper" style={{ width, height: layout.height }}>
      {layout.film.height > 0 && (
        <div
          className="caps absolute inset-x-0 flex items-center border-b border-line bg-sunk/60 pl-3"
          style={{ top: layout.film.top, height: layout.film.height }}
        >
          Picture
        </div>
      )}
      <Caption top={layout.caption.top} name="Speech">
        <HeightChoice />
      </Caption>
      {layout.lanes.map((lane) => (
        <Head key={lane.track.id} lane={lane} peaks={levels?.tracks[lane.track.id]?.peak} />
      ))}
      <ClearanceHead top={clearance.top} height={clearance.height} />
      <div
        className="absolute inset-x-0 flex items-center border-y border-t-ink border-b-line bg-sunk pr-2 pl-3"
        style={{ top: horizon.top, height: horizon.height }}
      >
        <div className="min-w-0 flex-1 leading-tight">
          <div className="font-semibold">Horizon</div>
          <div className="text-note text-faint">time</div>
        </div>
        <AddTrack />
      </div>
      <Caption top={horizon.top + horizon.height} name="The rest" />
    </div>
  );
});

function Caption({ top, name, children }: { top: number; name: string; children?: ReactNode }) {
  return (
    <div
      className="caps absolute inset-x-0 flex items-center justify-between bg-sunk/60 pr-1 pl-3 whitespace-nowrap"
      style={{ top, height: CAPTION }}
    >
      <span>{name}</span>
      {children}
    </div>
  );
}

/** How the height of drawn sound follows its level. */
function HeightChoice() {
  const store = useMixStore();
  const scale = useMix((s) => s.heightScale);
  const next = scale === "decibels" ? "linear" : "decibels";
  return (
    <button
      type="button"
      className="caps !min-h-0 cursor-pointer rounded px-1 hover:text-ink"
      style={{ height: CAPTION }}
      aria-label={`Heights of sound: ${scale}`}
      title={`Heights are ${scale === "decibels" ? "in decibels, as the ear hears" : "as the samples are"}. Click: ${next}`}
      onClick={() => store.getState().set({ heightScale: next })}
    >
      {scale === "decibels" ? "height: dB" : "height: linear"}
    </button>
  );
}

function AddTrack() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  if (!canEdit) return null;
  const add = (stem: Stem, name: string) => {
    const same = tracks.filter((t) => t.name.startsWith(name)).length;
    void store
      .getState()
      .edit({ edit: "add-track", track: newId("track"), name: same ? `${name} ${same + 1}` : name, stem });
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button px-2 py-1">
        <Plus size={14} aria-hidden /> Track
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          collisionPadding={8}
          className="menu z-50 min-w-36 overflow-y-auto rounded-lg border border-line bg-sheet p-1 shadow-xl"
          sideOffset={4}
        >
          {STEMS.map(({ stem, name }) => (
            <DropdownMenu.Item
              key={stem}
              className="flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 outline-none data-[highlighted]:bg-sunk"
              onSelect={() => add(stem, name)}
            >
              <span aria-hidden className="h-3 w-1 rounded" style={{ background: `var(--${stem})` }} /> {name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
