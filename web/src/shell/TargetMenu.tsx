import type { Edit, FadeShape, WireId } from "@/api/schema";
import { usePlayer } from "@/player";
import type { MenuAsked } from "@/timeline";
import type { Target } from "@/scene/hit";
import { newId } from "@/lib/ids";
import { MenuItem, MenuLine, MenuTitle, PointMenu } from "@/parts/Menu";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { wireIn } from "@/store/wires";
import { ClipItems } from "@/commands/ClipMenu";
import { CommandItem } from "@/commands/CommandItem";
import { deleteTakes } from "@/commands/arrange";
import { SHAPES } from "@/parts/fadeShapes";

/** What can be done with what lies under the pointer on the timeline, in the same words as elsewhere. */
export function TargetMenu({ asked, onClose }: { asked: MenuAsked | null; onClose: () => void }) {
  const canEdit = useCanEdit();
  return (
    <PointMenu at={asked && canEdit ? asked.point : null} label="What can be done here" onClose={onClose}>
      {asked && <Items asked={asked} />}
    </PointMenu>
  );
}

function Items({ asked }: { asked: MenuAsked }) {
  const { target } = asked;
  switch (target.kind) {
    case "name":
    case "trim":
    case "body":
      return <OnClip asked={asked} clip={target.clip.id} />;
    case "wire":
      return <OnWire asked={asked} wire={target.wire} />;
    case "keyframe":
    case "ease":
      return <OnKeyframe asked={asked} />;
    case "dip":
    case "range-edge":
    case "ramp":
    case "pan-range":
      return <OnRange asked={asked} />;
    case "fade":
    case "cross":
      return <OnFade asked={asked} target={target} />;
    case "marker":
      return <OnMarker asked={asked} marker={target.marker.id} />;
    case "pan-point":
    case "pan-line":
    case "mute-span":
    case "mute-edge":
      return <OnSideLane target={target} at={asked.at} />;
    case "lane":
      return <OnLane asked={asked} track={target.lane.track.id} />;
    case "horizon":
    case "playhead":
      return <OnTime asked={asked} />;
  }
}

/** "Type a level…": the field that typing a number over the target opens. */
function TypeItem({ asked, children }: { asked: MenuAsked; children: string }) {
  const { type } = asked;
  return type && <MenuItem onSelect={() => type("")}>{children}</MenuItem>;
}

function OnClip({ asked, clip: id }: { asked: MenuAsked; clip: string }) {
  const clip = useMix((s) => s.clips[id]);
  const range = useMix((s) => s.range);
  if (!clip) return null;
  const inRange = range && asked.at >= range.from && asked.at < range.to;
  return (
    <>
      <KeyframeHere wire={{ clip: id }} at={asked.at} />
      {inRange && <RangeItems />}
      <MenuLine />
      <ClipItems clip={clip} />
    </>
  );
}

function KeyframeHere({ wire, at }: { wire: WireId; at: number }) {
  const store = useMixStore();
  return (
    <MenuItem onSelect={() => void store.getState().edit({ edit: "add-keyframe", ...wire, at })}>
      A keyframe here
    </MenuItem>
  );
}

function OnWire({ asked, wire }: { asked: MenuAsked; wire: WireId }) {
  const store = useMixStore();
  const clip = useMix((s) => ("clip" in wire ? s.clips[wire.clip] : undefined));
  const curve = wireIn(store.getState(), wire)?.curve ?? [];
  const all = () => store.getState().set({ chosen: [{ ...wire, keyframes: curve.map((k) => k.at) }] });
  return (
    <>
      <KeyframeHere wire={wire} at={asked.at} />
      <TypeItem asked={asked}>Type a level…</TypeItem>
      <MenuItem reason={curve.length ? undefined : "it has no keyframes"} onSelect={all}>
        Choose all its keyframes
      </MenuItem>
      {"track" in wire && (
        <MenuItem
          reason={curve.length ? undefined : "it is empty"}
          onSelect={() =>
            void store.getState().edit({ edit: "clear-lane", track: wire.track, lane: wire.lane })
          }
        >
          Clear the {wire.lane} lane
        </MenuItem>
      )}
      {clip && <MenuLine />}
      {clip && <ClipItems clip={clip} />}
    </>
  );
}

function OnKeyframe({ asked }: { asked: MenuAsked }) {
  const store = useMixStore();
  const chosen = useMix((s) => s.chosen);
  const ramp = (kind: "line" | "smooth" | "hold") =>
    void store.getState().edit({ edit: "set-keyframes", chosen, ramp: kind });
  return (
    <>
      <TypeItem asked={asked}>Type a level…</TypeItem>
      <CommandItem id="from-previous" />
      <CommandItem id="from-next" />
      <MenuLine />
      <MenuTitle>Ramp to the next</MenuTitle>
      {(["line", "smooth", "hold"] as const).map((kind) => (
        <MenuItem key={kind} onSelect={() => ramp(kind)}>
          {kind}
        </MenuItem>
      ))}
      <MenuLine />
      <MenuItem
        trouble
        keys="Delete"
        onSelect={() => void store.getState().edit({ edit: "remove-keyframes", chosen })}
      >
        Remove
      </MenuItem>
    </>
  );
}

function RangeItems() {
  return (
    <>
      <MenuTitle>The range</MenuTitle>
      <CommandItem id="dip" />
      <CommandItem id="silence" />
      <CommandItem id="reset-range" />
      <CommandItem id="tame" />
      <CommandItem id="loop" />
      <CommandItem id="range-view" />
      <CommandItem id="choose-keyframes" />
      <CommandItem id="choose-clips" />
    </>
  );
}

function OnRange({ asked }: { asked: MenuAsked }) {
  const takes = useMix(deleteTakes);
  return (
    <>
      <TypeItem asked={asked}>Type an amount…</TypeItem>
      <RangeItems />
      <MenuLine />
      <CommandItem id="split" />
      <CommandItem id="insert-time" />
      <CommandItem id="remove" />
      <CommandItem id="remove-close" />
      <p className="max-w-64 px-2 py-1 text-note text-faint">{takes}</p>
    </>
  );
}

function OnFade({
  asked,
  target,
}: {
  asked: MenuAsked;
  target: Extract<Target, { kind: "fade" | "cross" }>;
}) {
  const store = useMixStore();
  const edit = (e: Edit) => void store.getState().edit(e);
  const later = target.kind === "cross" && target.other.at > target.clip.at ? target.other : target.clip;
  const edge = target.kind === "cross" ? "in" : target.edge;
  const own = (edge === "in" ? later.fadeIn : later.fadeOut) ?? { length: 0, shape: "equal-power" as const };
  const shape = (next: FadeShape) =>
    edit({ edit: "set-fade", clips: [later.id], edge, length: own.length, shape: next });
  return (
    <>
      <TypeItem asked={asked}>Type a length…</TypeItem>
      <MenuTitle>Shape</MenuTitle>
      {SHAPES.map(({ shape: one, name }) => (
        <MenuItem key={one} onSelect={() => shape(one)}>
          {own.shape === one ? "● " : "○ "}
          {name}
        </MenuItem>
      ))}
      {target.kind === "fade" && (
        <>
          <MenuLine />
          <MenuItem
            reason={own.length > 0 ? undefined : "there is none"}
            onSelect={() => edit({ edit: "set-fade", clips: [later.id], edge, length: 0 })}
          >
            No fade
          </MenuItem>
        </>
      )}
    </>
  );
}

function OnMarker({ asked, marker }: { asked: MenuAsked; marker: string }) {
  const store = useMixStore();
  const player = usePlayer();
  const at = useMix((s) => s.markers.find((m) => m.id === marker)?.at ?? 0);
  const { rename } = asked;
  return (
    <>
      <MenuItem onSelect={() => player.seek(at)}>Go there</MenuItem>
      {rename && <MenuItem onSelect={rename}>Rename…</MenuItem>}
      <MenuItem
        trouble
        onSelect={() => void store.getState().edit({ edit: "remove-markers", markers: [marker] })}
      >
        Remove
      </MenuItem>
    </>
  );
}

function OnSideLane({
  target,
  at,
}: {
  target: Extract<Target, { kind: "pan-point" | "pan-line" | "mute-span" | "mute-edge" }>;
  at: number;
}) {
  const store = useMixStore();
  const { edit, length } = store.getState();
  const track = target.lane.track.id;
  switch (target.kind) {
    case "pan-line":
      return (
        <MenuItem onSelect={() => void edit({ edit: "set-pan-point", track, at })}>A point here</MenuItem>
      );
    case "pan-point":
      return (
        <MenuItem
          trouble
          onSelect={() => void edit({ edit: "remove-pan-points", track, points: [target.at] })}
        >
          Remove
        </MenuItem>
      );
    case "mute-span": {
      const to = Math.min(target.to, Math.max(length, target.from + 1));
      return (
        <MenuItem
          onSelect={() => void edit({ edit: "set-mute-range", track, from: target.from, to, muted: false })}
        >
          Let it be heard again
        </MenuItem>
      );
    }
    case "mute-edge":
      return (
        <MenuItem onSelect={() => void edit({ edit: "clear-lane", track, lane: "mute" })}>
          Clear the mute lane
        </MenuItem>
      );
  }
}

function OnTime({ asked }: { asked: MenuAsked }) {
  const store = useMixStore();
  const player = usePlayer();
  const range = useMix((s) => s.range);
  const mark = () => {
    const { edit, markers } = store.getState();
    void edit({
      edit: "add-marker",
      marker: newId("marker"),
      at: asked.at,
      name: `Marker ${markers.length + 1}`,
    });
  };
  return (
    <>
      <MenuItem onSelect={() => player.seek(asked.at)}>Go here</MenuItem>
      <MenuItem onSelect={() => void player.play(asked.at)}>Play from here</MenuItem>
      <MenuItem onSelect={mark}>A marker here</MenuItem>
      <MenuItem
        onSelect={() => void store.getState().edit({ edit: "insert-time", at: asked.at, length: "1 s" })}
      >
        Insert a second of blank time here
      </MenuItem>
      {range && asked.at >= range.from && asked.at < range.to && (
        <>
          <MenuLine />
          <RangeItems />
        </>
      )}
    </>
  );
}

function OnLane({ asked, track }: { asked: MenuAsked; track: string }) {
  const store = useMixStore();
  const clips = useMix((s) => s.clips);
  const own = Object.values(clips).filter((c) => c.track === track);
  return (
    <>
      <OnTime asked={asked} />
      <MenuLine />
      <MenuItem
        reason={own.length ? undefined : "it has no clips"}
        onSelect={() => store.getState().set({ selected: own.map((c) => c.id), chosen: [] })}
      >
        Select all its clips
      </MenuItem>
    </>
  );
}
