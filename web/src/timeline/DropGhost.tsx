import { useMix, useMixStore } from "@/store/context";
import { type Drop, spokenDrop } from "./drops";
import { type View, xOf } from "@/scene/geometry";

/** Where a dragged recording would come to lie, and what that would do. */
export function DropGhost({
  drop,
  x,
  y,
  view,
  width,
}: {
  drop: Drop;
  x: number;
  y: number;
  view: View;
  width: number;
}) {
  const state = useMixStore().getState();
  const length = useMix((s) => s.carried?.length ?? 0);
  const box = boxOf(drop, length);
  return (
    <>
      {box && (
        <div
          aria-hidden
          className="pointer-events-none absolute z-10 rounded border-2 border-dashed border-copper bg-glow/70"
          style={{
            left: xOf(view, box.at),
            width: Math.max(4, box.length / view.perPx),
            top: box.top,
            height: box.height,
          }}
        />
      )}
      <div
        role="status"
        className={`pointer-events-none absolute z-20 rounded-md px-2 py-1 text-aside whitespace-nowrap shadow-lg ${drop.kind === "refused" ? "border border-trouble bg-trouble-sheet text-trouble" : "figure bg-ink text-paper"}`}
        style={
          x > width / 2
            ? { right: width - x + 14, top: Math.max(2, y - 34) }
            : { left: x + 14, top: Math.max(2, y - 34) }
        }
      >
        {spokenDrop(state, drop)}
      </div>
    </>
  );
}

function boxOf(drop: Drop, length: number) {
  if (drop.kind === "refused") return null;
  if (drop.kind === "fresh") return { at: drop.at, length, top: drop.top, height: drop.height };
  const { top, height } = drop.lane;
  return drop.kind === "replace"
    ? { at: drop.clip.at, length: drop.clip.length, top, height }
    : { at: drop.at, length, top, height };
}
