import { X } from "lucide-react";
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Source } from "@/api/types";
import { SourcesShelf, useUploads } from "@/features/sources";
import { clampView, fitAll, layOut, Timeline, type View } from "@/features/timeline";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { clipsOf } from "@/store/mixStore";
import { newId } from "@/lib/ids";
import { Heads } from "./Heads";
import { HistoryPanel } from "./HistoryPanel";
import { Inspector } from "./Inspector";
import { KeySheet } from "./KeySheet";
import { Panel } from "./Panel";
import { Skyline } from "./Skyline";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";

const HEADS_WIDTH = 208;
const EDITS = <HistoryPanel />;

/** The Balance view: heads, lanes around the horizon, what is selected, and the whole programme beneath. */
export function Workspace({ onClose }: { onClose: () => void }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  const project = useMix((s) => s.project.id);
  const rate = useMix((s) => s.rate);
  const notice = useMix((s) => s.notice);
  const uploads = useUploads(project);
  const scroller = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [scrollTop, setScrollTop] = useState(0);
  const [view, setViewState] = useState<View>({ start: 0, perPx: 48 });
  const [hint, setHint] = useState("");
  const [tab, setTab] = useState(tracks.length === 0 ? "sources" : "clip");
  const [rampSeconds, setRampSeconds] = useState(0.4);
  const [dropping, setDropping] = useState(false);
  const [keysShown, setKeysShown] = useState(false);
  const setView = useCallback((change: (v: View) => View) => setViewState(change), []);
  const ramp = Math.round(rampSeconds * rate);

  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth - HEADS_WIDTH, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  // The first look shows the beginning closely enough to work; a short programme shows whole.
  const shown = useRef(false);
  useEffect(() => {
    if (size.width <= 0 || shown.current) return;
    shown.current = true;
    const state = store.getState();
    setViewState(
      state.length > 90 * state.rate
        ? clampView({ start: 0, perPx: (80 * state.rate) / size.width }, size.width, state)
        : fitAll(size.width, state),
    );
  }, [size.width, store]);

  useEffect(
    () =>
      store.subscribe(
        (now, before) => now.selected !== before.selected && now.selected.length > 0 && setTab("clip"),
      ),
    [store],
  );

  const layout = useMemo(() => layOut(tracks, size.height), [tracks, size.height]);
  const showKeys = useCallback(() => setKeysShown(true), []);
  useKeys({ width: size.width, setView, ramp, showKeys });

  /** Beside the pointer there is a button: the source goes where the playhead is, after what sounds there already. */
  const placeAtPlayhead = useCallback(
    async (source: Source) => {
      const state = store.getState();
      const chosen = state.selected[0] === undefined ? undefined : state.clips[state.selected[0]]?.track;
      let track = chosen ?? state.tracks[0]?.id;
      if (track === undefined) {
        track = newId("track");
        if (!(await state.edit({ edit: "add-track", track, name: "Speech", stem: "speech" }))) return;
      }
      let at = state.playhead;
      for (const clip of clipsOf(store.getState().clips, track)) {
        if (clip.at < at + (source.frames ?? 0) && clip.at + clip.length > at) at = clip.at + clip.length;
      }
      const clip = newId("clip");
      if (await store.getState().edit({ edit: "add-clip", track, clip, source: source.id, at }))
        store.getState().select(clip);
    },
    [store],
  );

  // Made once, so that scrolling and zooming, which change the view many times a second, draw nothing but the lanes anew.
  const levels = useMemo(
    () => <Inspector rampSeconds={rampSeconds} setRampSeconds={setRampSeconds} />,
    [rampSeconds],
  );
  const shelf = useMemo(
    () => <SourcesShelf uploads={uploads} onPlace={(source) => void placeAtPlayhead(source)} />,
    [uploads, placeAtPlayhead],
  );

  return (
    <div
      className="relative grid h-full grid-rows-[54px_minmax(0,1fr)_64px]"
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes("Files") || !canEdit) return;
        event.preventDefault();
        setDropping(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setDropping(false)}
      onDrop={(event) => {
        if (!event.dataTransfer.files.length) return;
        event.preventDefault();
        setDropping(false);
        uploads.add(event.dataTransfer.files);
        setTab("sources");
      }}
    >
      <TopBar onClose={onClose} onKeys={showKeys} />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_274px]">
        <div
          ref={scroller}
          className="min-h-0 overflow-x-hidden overflow-y-auto"
          onScroll={(event) => setScrollTop(event.currentTarget.scrollTop)}
        >
          <div className="flex" style={{ height: layout.height }}>
            <Heads layout={layout} width={HEADS_WIDTH} />
            <Timeline
              layout={layout}
              view={view}
              setView={setView}
              width={size.width}
              viewHeight={size.height}
              scrollTop={scrollTop}
              ramp={ramp}
              onHint={setHint}
            />
          </div>
        </div>
        <Panel tab={tab} onTab={setTab} clip={levels} sources={shelf} edits={EDITS} />
      </div>
      <Skyline view={view} setView={setView} width={size.width} hint={hint} headsWidth={HEADS_WIDTH} />
      {dropping && (
        <div className="pointer-events-none absolute inset-3 z-50 grid place-content-center rounded-2xl border-2 border-dashed border-copper bg-glow text-[18px] font-semibold">
          Let go to bring these files in
        </div>
      )}
      {notice && (
        <div
          role={notice.kind === "error" ? "alert" : "status"}
          className={`absolute bottom-[76px] left-1/2 z-40 flex max-w-[640px] -translate-x-1/2 items-start gap-3 rounded-lg border px-4 py-2 shadow-xl ${notice.kind === "error" ? "border-trouble bg-trouble-sheet text-trouble" : "border-line bg-sheet"}`}
        >
          <span>{notice.text}</span>
          <button
            type="button"
            className="cursor-pointer"
            aria-label="Dismiss"
            onClick={() => store.getState().set({ notice: null })}
          >
            <X size={15} />
          </button>
        </div>
      )}
      <KeySheet open={keysShown} onOpenChange={setKeysShown} />
    </div>
  );
}
