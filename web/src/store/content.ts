import type {
  Aim,
  Clip,
  Cue,
  Faders,
  Marker,
  Mix,
  MixSource,
  Picture,
  Rule,
  Step,
  Track,
} from "@/api/schema";

/** The state of the mix itself, as against what is selected or played. */
export interface Content {
  rate: number;
  frameRate: string;
  length: number;
  aim: Aim;
  captions: Cue[];
  faders: Faders;
  rules: Rule[];
  sources: Record<string, MixSource>;
  tracks: Track[];
  clips: Record<string, Clip>;
  markers: Marker[];
  pictures: Picture[];
  /** Which picture shows when. */
  strip: Picture[];
}

const CONTENT = [
  "rate",
  "frameRate",
  "length",
  "aim",
  "captions",
  "faders",
  "rules",
  "sources",
  "tracks",
  "clips",
  "markers",
  "pictures",
  "strip",
] as const satisfies (keyof Content)[];

export function contentFrom(mix: Mix): Content {
  const sources = Object.fromEntries(mix.sources.map((s) => [s.id, s]));
  return { ...mix, sources, clips: Object.fromEntries(mix.clips.map((c) => [c.id, c])) };
}

export function contentOf(state: Content): Content {
  return Object.fromEntries(CONTENT.map((key) => [key, state[key]])) as unknown as Content;
}

/** The objects of the other state itself where they are the same, so that they go on sounding untouched and are not drawn again. */
export function withSame(content: Content, other: Content): Content {
  const clips = Object.fromEntries(
    Object.entries(content.clips).map(([id, clip]) => [id, keepEqual(other.clips[id] ?? clip, clip)]),
  );
  return { ...content, clips, tracks: keepSame(other.tracks, content.tracks) };
}

/** What a state becomes by the changes that lead from it to another. */
export function changed(before: Content, changes: Step["changes"]): Content {
  const { sources, order, changedTracks, changedClips, placedClips, removedClips, ...parts } = changes;
  const removed = new Set(removedClips);
  const clips = Object.fromEntries(Object.entries(before.clips).filter(([id]) => !removed.has(id)));
  for (const clip of changedClips) clips[clip.id] = clip;
  for (const placed of placedClips) {
    const clip = clips[placed.id];
    if (clip) clips[placed.id] = { ...clip, ...placed };
  }
  return {
    ...contentOf(before),
    ...parts,
    ...(sources && { sources: Object.fromEntries(sources.map((s) => [s.id, s])) }),
    tracks: tracksAfter(before.tracks, order, changedTracks),
    clips,
  };
}

function tracksAfter(before: Track[], order: string[] | undefined, changed: Track[]): Track[] {
  if (!order && changed.length === 0) return before;
  const tracks = new Map([...before, ...changed].map((track) => [track.id, track]));
  return (order ?? before.map((track) => track.id)).flatMap((id) => tracks.get(id) ?? []);
}

/** The old object where it says the same, so that what shows it need not draw again. */
function keepEqual<T>(before: T, after: T): T {
  return JSON.stringify(before) === JSON.stringify(after) ? before : after;
}

/** The old track objects where nothing changed, so that what shows them need not draw again. */
function keepSame(before: Track[], after: Track[]): Track[] {
  const old = new Map(before.map((t) => [t.id, t]));
  return after.map((track) => keepEqual(old.get(track.id) ?? track, track));
}
