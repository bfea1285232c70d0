import { useCallback, useMemo, useRef, useState } from "react";
import type { Source } from "@/api/schema";
import type { Desk } from "@/commands";
import { DeskContext } from "@/commands/deskContext";
import { placeHere } from "@/commands/placeHere";
import { DeskTimeline, DeskView } from "@/features/desk";
import { DuckPanel } from "@/features/ducking";
import { HandoverView } from "@/features/handover";
import { Inspector } from "@/features/levels";
import { MarkersPanel } from "@/features/markers";
import { UndoQuestion, useLive } from "@/features/people";
import { DetachedPictures, PicturePane } from "@/features/picture";
import { Intake, SourcesShelf, useUploads } from "@/features/sources";
import { SpeechPanel } from "@/features/speech";
import { VersionsPanel } from "@/features/versions";
import { Divider } from "@/parts/Divider";
import { usePlayer } from "@/player";
import { useMix, useMixStore } from "@/store/context";
import type { MenuAsked } from "@/timeline";
import { FileDrop } from "./FileDrop";
import { Lanes } from "./Lanes";
import { Notice } from "./Notice";
import { Panel } from "./Panel";
import { Sheets, useSheets } from "./Sheets";
import { Skyline } from "./Skyline";
import { TargetMenu } from "./TargetMenu";
import { TopBar } from "./TopBar";
import { useFigures } from "./useFigures";
import { useKeptRoom } from "./useKeptPlace";
import { useKeys } from "./useKeys";
import { HEADS_WIDTH, useLanesSize } from "./useLanesSize";
import { useScreen } from "./useScreen";
import { useTab } from "./useTab";
import { useView } from "./useView";

// Made once, so that scrolling and zooming, which change the view many times a second, draw nothing but the lanes anew.
const LEVELS = <Inspector />;
const SPEECH = <SpeechPanel />;
const DUCKING = <DuckPanel />;
const VERSIONS = <VersionsPanel />;
const MARKERS = (
  <>
    <MarkersPanel />
    <DetachedPictures />
  </>
);
const PICTURE = <PicturePane />;

/** An open project: the bar, the view that is open, the panel beside it, and the whole programme beneath. */
export function Workspace({ onClose }: { onClose: () => void }) {
  const store = useMixStore();
  const player = usePlayer();
  const project = useMix((s) => s.project.id);
  const { panelWidth, setPanelWidth, guide, setGuide } = useScreen();
  const uploads = useUploads(project);
  const scroller = useRef<HTMLDivElement>(null);
  const size = useLanesSize(scroller, panelWidth);
  const { width } = size;
  const [view, setView] = useView(project, width);
  const [hint, setHint] = useState("");
  const [tab, setTab] = useTab();
  const [menu, setMenu] = useState<MenuAsked | null>(null);
  const [room, setRoom] = useKeptRoom(project);
  const sheets = useSheets(setRoom, setGuide);
  const { show } = sheets;
  const showKeys = useCallback(() => show("keys"), [show]);
  const goToBalance = useCallback(() => setRoom("balance"), [setRoom]);
  const place = useCallback((source: Source) => void placeHere(store, source), [store]);
  const shelf = useMemo(() => <SourcesShelf uploads={uploads} onPlace={place} />, [uploads, place]);
  useFigures();
  useLive();
  useKeys({ width, setView, show });
  const desk = useMemo<Desk>(
    () => ({ store, player, width, setView, show }),
    [store, player, width, setView, show],
  );
  const seen = { view, setView, onHint: setHint, onMenu: setMenu };

  return (
    <DeskContext value={desk}>
      <FileDrop
        className="relative grid h-full grid-rows-[54px_minmax(0,1fr)_64px]"
        onFiles={(files) => {
          uploads.add(files);
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
            <DeskView timeline={<DeskTimeline {...seen} width={width} headsWidth={HEADS_WIDTH} />} />
          )}
          <Lanes {...seen} scroller={scroller} size={size} hidden={room !== "balance"} />
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
          width={width}
          hint={hint}
          headsWidth={HEADS_WIDTH}
          panelWidth={panelWidth}
        />
        <Notice />
        <UndoQuestion />
        <TargetMenu asked={menu} onClose={() => setMenu(null)} />
        <Sheets sheets={sheets} guide={guide && room === "balance"} onGuideAside={() => setGuide(false)} />
      </FileDrop>
    </DeskContext>
  );
}
