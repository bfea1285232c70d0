import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Source } from "@/api/schema";
import { usePlayer } from "@/features/player";
import { SourcesShelf, useUploads } from "@/features/sources";
import { clampView, fitAll, layOut, type MenuAsked, Timeline, type View } from "@/features/timeline";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { UndoQuestion, useLive } from "@/features/people";
import { CloseUp } from "./CloseUp";
import type { Desk, Sheet } from "./commands";
import { DeskContext } from "./deskContext";
import { Divider } from "@/parts/Divider";
import { DuckPanel } from "./DuckPanel";
import { Guide } from "./Guide";
import { Heads } from "./Heads";
import { DeskTimeline, DeskView } from "@/features/desk";
import { HandoverView } from "@/features/handover";
import { Intake } from "./Intake";
import { Inspector } from "./Inspector";
import { KeySheet } from "./KeySheet";
import { LevelSheet } from "./LevelSheet";
import { MarkersPanel } from "./MarkersPanel";
import { Notice } from "./Notice";
import { Panel } from "./Panel";
import { placeHere } from "./placeHere";
import { PicturePane } from "./PicturePane";
import { Skyline } from "./Skyline";
import { SpeechPanel } from "./SpeechPanel";
import { TargetMenu } from "./TargetMenu";
import { TopBar } from "./TopBar";
import { useKeptPlace, useKeptRoom } from "./useKeptPlace";
import { useFigures } from "./useFigures";
import { useKeys } from "./useKeys";
import { useScreen } from "./useScreen";
import { VersionsPanel } from "./VersionsPanel";

const HEADS_WIDTH = 208;
const LEVELS = <Inspector />;
const SPEECH = <SpeechPanel />;
const DUCKING = <DuckPanel />;
const VERSIONS = <VersionsPanel />;
const MARKERS = <MarkersPanel />;
const PICTURE = <PicturePane />;

/** The Balance view: heads, lanes around the horizon, what is selected, and the whole programme beneath. */
export function Workspace({ onClose }: { onClose: () => void }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  const project = useMix((s) => s.project.id);
  const heights = useMix((s) => s.heights);
  const player = usePlayer();
  const { panelWidth, setPanelWidth, guide, setGuide } = useScreen();
  const uploads = useUploads(project);
  const scroller = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [scrollTop, setScrollTop] = useState(0);
  const [view, setViewState] = useState<View>({ start: 0, perPx: 48 });
  const kept = useKeptPlace(project, view);
  const [hint, setHint] = useState("");
  const [tab, setTab] = useState(tracks.length === 0 ? "sources" : "clip");
  const [dropping, setDropping] = useState(false);
  const [menu, setMenu] = useState<MenuAsked | null>(null);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [room, setRoom] = useKeptRoom(project);
  const setView = useCallback((change: (v: View) => View) => setViewState(change), []);

  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    // While another view stands in its place it has no size of its own; then it is that of the room there is.
    const measure = () => {
      const room = element.parentElement;
      const width = element.clientWidth || (room?.clientWidth ?? 0) - panelWidth;
      const height = element.clientHeight || (room?.clientHeight ?? 0);
      if (width > HEADS_WIDTH) setSize({ width: width - HEADS_WIDTH, height });
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    if (element.parentElement) observer.observe(element.parentElement);
    return () => observer.disconnect();
  }, [panelWidth]);

  // The first look shows the beginning closely enough to work; a short programme shows whole.
  const shown = useRef(false);
  useEffect(() => {
    if (size.width <= 0 || shown.current) return;
    shown.current = true;
    const state = store.getState();
    setViewState(
      kept
        ? clampView(kept.view, size.width, state)
        : state.length > 90 * state.rate
          ? clampView({ start: 0, perPx: (80 * state.rate) / size.width }, size.width, state)
          : fitAll(size.width, state),
    );
  }, [size.width, store, kept]);

  useEffect(
    () =>
      store.subscribe((now, before) => {
        // A rule that is tried stays open: clips are chosen for it.
        if (now.duckDraft) return;
        const lane = now.activeLane !== before.activeLane;
        const [first] = now.selected;
        const chosen = now.selected !== before.selected && first !== undefined && first !== now.placed;
        if (now.selected !== before.selected && first !== now.placed) now.set({ placed: null });
        if (lane || chosen) setTab("clip");
        if (now.stretch !== before.stretch && now.stretch !== null) setTab("speech");
        if (now.comment !== before.comment && now.comment !== null) setTab("markers");
      }),
    [store],
  );

  const layout = useMemo(() => layOut(tracks, size.height, heights), [tracks, size.height, heights]);
  const show = useCallback(
    (next: Sheet) => {
      // It points at what is in Balance, and would cover what is elsewhere.
      if (next === "guide") {
        setRoom("balance");
        setGuide(true);
      }
      setSheet(next === "guide" ? null : next);
    },
    [setGuide, setRoom],
  );
  const showKeys = useCallback(() => show("keys"), [show]);
  useFigures();
  useLive();
  useKeys({ width: size.width, setView, show });
  const desk = useMemo<Desk>(
    () => ({ store, player, width: size.width, setView, show }),
    [store, player, size.width, setView, show],
  );

  const placeAtPlayhead = useCallback((source: Source) => void placeHere(store, source), [store]);

  const goToBalance = useCallback(() => setRoom("balance"), [setRoom]);

  // Made once, so that scrolling and zooming, which change the view many times a second, draw nothing but the lanes anew.
  const shelf = useMemo(
    () => <SourcesShelf uploads={uploads} onPlace={placeAtPlayhead} />,
    [uploads, placeAtPlayhead],
  );

  return (
    <DeskContext value={desk}>
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
        <TopBar room={room} onRoom={setRoom} onClose={onClose} onKeys={showKeys} />
        <div
          className="relative grid min-h-0"
          style={{
            gridTemplateColumns: `minmax(0,1fr) ${panelWidth}px`,
            ["--panel" as string]: `${panelWidth - 3}px`,
          }}
        >
          {room === "intake" && <Intake uploads={uploads} />}
          {room === "handover" && <HandoverView onGo={goToBalance} />}
          {room === "desk" && (
            <DeskView
              timeline={
                <DeskTimeline
                  view={view}
                  setView={setView}
                  width={size.width}
                  headsWidth={HEADS_WIDTH}
                  onHint={setHint}
                  onMenu={setMenu}
                />
              }
            />
          )}
          <div
            ref={scroller}
            id="lanes"
            data-area="lanes"
            className={`min-h-0 overflow-x-hidden overflow-y-auto ${room === "balance" ? "" : "hidden"}`}
            onScroll={(event) => setScrollTop(event.currentTarget.scrollTop)}
          >
            {room === "balance" && (
              <div className="flex" style={{ height: layout.height }}>
                <Heads layout={layout} width={HEADS_WIDTH} />
                <Timeline
                  layout={layout}
                  view={view}
                  setView={setView}
                  width={size.width}
                  viewHeight={size.height}
                  scrollTop={scrollTop}
                  onHint={setHint}
                  onMenu={setMenu}
                />
              </div>
            )}
          </div>
          <Panel
            tab={tab}
            onTab={setTab}
            picture={PICTURE}
            levels={LEVELS}
            sources={shelf}
            speech={SPEECH}
            ducking={DUCKING}
            versions={VERSIONS}
            markers={MARKERS}
          />
          <Divider
            label="Width of the panel"
            className="absolute inset-y-0 right-[var(--panel)] z-20 w-[6px]"
            orientation="vertical"
            value={panelWidth}
            min={250}
            max={640}
            reversed
            onChange={setPanelWidth}
          />
        </div>
        <Skyline
          view={view}
          setView={setView}
          width={size.width}
          hint={hint}
          headsWidth={HEADS_WIDTH}
          panelWidth={panelWidth}
        />
        {dropping && (
          <div className="pointer-events-none absolute inset-3 z-50 grid place-content-center rounded-2xl border-2 border-dashed border-copper bg-glow text-[18px] font-semibold">
            Let go to bring these files in
          </div>
        )}
        <Notice />
        <UndoQuestion />
        <TargetMenu asked={menu} onClose={() => setMenu(null)} />
        {guide && room === "balance" && <Guide onClose={() => setGuide(false)} />}
        <KeySheet
          open={sheet === "keys"}
          onOpenChange={(open) => setSheet(open ? "keys" : null)}
          onGuide={() => show("guide")}
        />
        <LevelSheet sheet={sheet} onClose={() => setSheet(null)} />
        <CloseUp open={sheet === "close-up"} onOpenChange={(open) => setSheet(open ? "close-up" : null)} />
      </div>
    </DeskContext>
  );
}
