import type { Side } from "@/api/schema";
import { sideOf } from "@/store/wires";
import { columnsOf } from "../columns";
import { soundArea, xOf } from "../geometry";
import { byOutline } from "../byOutline";
import { bySamples } from "../bySamples";
import type { Sounds } from "../sounds";
import type { DrawnClip, Scene } from "../scene";
import { SoundGain } from "../soundGain";
import { columnPixels } from "./columnPixels";
import type { Palette } from "./palette";
import { drawTrace } from "./trace";
import { type SoundTiles, TILE, type TileRow } from "./soundTiles";

/** What sound is drawn on and with. */
export interface Brush {
  ctx: CanvasRenderingContext2D;
  palette: Palette;
  sounds: Sounds;
  tiles: SoundTiles;
  /** Device px per CSS px. */
  ratio: number;
}

/** Samples per CSS px below which the wave itself is drawn. */
const TRACE = 4;

/** Milliseconds per column below which samples are measured and not the outline, whose points last 5 ms. */
const NEAR_MS = 5;

/** The sound of a clip, or of one channel of it, after all gains: the average as the body, peaks above it, and a ghost of what it was before. */
export function drawSound(brush: Brush, scene: Scene, drawn: DrawnClip, ink: string, channel?: Side): void {
  const { ctx, palette } = brush;
  const { clip, lane } = drawn;
  const { bottom } = soundArea(lane, channel);
  if (scene.view.perPx < TRACE) drawTrace(brush, scene, drawn, ink, channel);
  else drawBodies(brush, scene, drawn, ink, channel);
  ctx.fillStyle = palette.line;
  ctx.fillRect(xOf(scene.view, clip.at), bottom - 1, clip.length / scene.view.perPx, 1);
}

function drawBodies(brush: Brush, scene: Scene, drawn: DrawnClip, ink: string, channel?: Side): void {
  const { ctx, tiles, ratio, sounds } = brush;
  const { clip, lane } = drawn;
  const { view } = scene;
  const area = soundArea(lane, channel);
  const height = Math.max(1, Math.round((area.bottom - area.top) * ratio));
  const perColumn = view.perPx / ratio;
  const side = channel && drawn.wires.find((w) => sideOf(w.id) === channel)?.schedule;
  const moved = drawn.rows.length > 0 ? clip.at : 0;
  const lanes = drawn.rows.map((row) => row.schedule);
  const made = [
    clip.source,
    clip.in,
    clip.length,
    moved,
    clip.fades,
    drawn.wires[0]?.schedule,
    side,
    channel && clip.channels?.[channel]?.muted,
    drawn.levelDb,
    drawn.extra,
    ...lanes,
    sounds.version(clip.source),
    height,
    ratio,
    ink,
    scene.heights,
    scene.aim.truePeak,
  ];
  const row = tiles.row(`${clip.id}/${channel ?? ""}`, made, perColumn);
  // Tiles lie on the clip's own grid, so that they go where it goes.
  const origin = xOf(view, clip.at - clip.in);
  const left = Math.max(0, xOf(view, clip.at));
  const right = Math.min(scene.width, xOf(view, clip.at + clip.length));
  const width = TILE / ratio;
  const draw = tileDrawer(brush, scene, drawn, { rgb: rgbOf(ctx, ink), height, perColumn, channel });
  const xOfTile = (number: number) => Math.round((origin + number * width) * ratio) / ratio;
  const missing: [from: number, to: number][] = [];
  for (let number = Math.floor((left - origin) / width); origin + number * width < right; number++) {
    const x = xOfTile(number);
    const tile = tiles.tile(row, number, height, (on) => draw(on, number));
    if (tile) {
      ctx.drawImage(tile, x, area.top, width, height / ratio);
      continue;
    }
    const last = missing.at(-1);
    if (last?.[1] === x) last[1] = xOfTile(number + 1);
    else missing.push([x, xOfTile(number + 1)]);
  }
  for (const [from, to] of missing) standIn(ctx, row, { from, to, origin, perPx: view.perPx, ...area });
}

const rgbByInk = new Map<string, number>();

/** A colour as the canvas understands it, 0xRRGGBB. */
function rgbOf(ctx: CanvasRenderingContext2D, ink: string): number {
  const known = rgbByInk.get(ink);
  if (known !== undefined) return known;
  ctx.fillStyle = ink;
  const rgb = typeof ctx.fillStyle === "string" ? parseInt(ctx.fillStyle.slice(1), 16) : 0;
  rgbByInk.set(ink, rgb);
  return rgb;
}

interface Gap {
  /** Px across, and where the first tile of the clip would begin. */
  from: number;
  to: number;
  origin: number;
  perPx: number;
  top: number;
  bottom: number;
}

/** What was drawn before, stretched to where it belongs. */
function standIn(ctx: CanvasRenderingContext2D, { before }: TileRow, gap: Gap): void {
  const { from, to, origin, perPx, top, bottom } = gap;
  ctx.save();
  ctx.beginPath();
  ctx.rect(from, top, to - from, bottom - top);
  ctx.clip();
  for (const { perColumn, tiles } of before) {
    const wide = (TILE * perColumn) / perPx;
    for (const [number, image] of tiles) {
      const at = origin + number * wide;
      if (at < to && at + wide > from) ctx.drawImage(image, at, top, wide, bottom - top);
    }
  }
  ctx.restore();
}

interface TileShape {
  /** 0xRRGGBB */
  rgb: number;
  /** Device px. */
  height: number;
  perColumn: number;
  channel: Side | undefined;
}

function tileDrawer({ sounds, palette }: Brush, scene: Scene, drawn: DrawnClip, shape: TileShape) {
  const { clip } = drawn;
  const { perColumn, channel } = shape;
  const heard = { from: clip.in, to: clip.in + clip.length };
  const ceiling = 10 ** (scene.aim.truePeak / 20);
  const outline = (samples: number) => byOutline(sounds, clip.source, samples, scene.rate, channel);
  return (on: CanvasRenderingContext2D, number: number) => {
    const from = number * TILE * perColumn;
    const near =
      (1000 * perColumn) / scene.rate < NEAR_MS
        ? bySamples(
            sounds,
            clip.source,
            Math.max(from, heard.from),
            Math.min(from + TILE * perColumn, heard.to),
            channel,
          )
        : null;
    const coarse = near ?? outline(perColumn);
    const fine = near ?? outline(perColumn / 16) ?? coarse;
    if (!coarse || !fine) return;
    const stretch = { from, perColumn, count: TILE, heard, ceiling };
    const columns = columnsOf(stretch, SoundGain.of(drawn, channel), coarse, fine);
    const [first, last] = [heard.from, heard.to].map((at) => Math.round((at - from) / perColumn)) as [
      number,
      number,
    ];
    on.putImageData(columnPixels(columns, shape.height, shape.rgb, scene.heights), 0, 0);
    paintOver(on, columns.over, [Math.max(0, first), Math.min(TILE, last)], palette);
  };
}

/** Px between marks of what is over, so that they stay apart. */
const OVER_APART = 9;

/** A mark where something begins to be over, and a bar as long as it is: a wedge where it passes the ceiling, a hollow square where only the recording itself is clipped. As large at any zoom. */
function paintOver(
  ctx: CanvasRenderingContext2D,
  over: Uint8Array,
  [first, last]: [number, number],
  palette: Palette,
): void {
  ctx.fillStyle = palette.trouble;
  ctx.strokeStyle = palette.trouble;
  ctx.lineWidth = 1.2;
  let before = -OVER_APART;
  for (let x = 0; x < TILE; x++) {
    const what = over[x] ?? 0;
    if (!what) continue;
    ctx.fillRect(x, 0, 1, 2);
    const begins = x - before >= OVER_APART;
    before = x;
    if (!begins) continue;
    const at = Math.min(last - 5, Math.max(first + 5, x));
    if (!(what & 2)) {
      ctx.strokeRect(at - 2.5, 1.5, 5, 5);
      continue;
    }
    ctx.beginPath();
    ctx.moveTo(at - 3.5, 1);
    ctx.lineTo(at + 3.5, 1);
    ctx.lineTo(at, 7);
    ctx.closePath();
    ctx.fill();
  }
}
