import { useCallback, useMemo, useRef, useState } from "react";
import type { Source } from "@/api/schema";
import type { Desk } from "@/commands";
import { DeskContext } from "@/commands/deskContext";
import { placeHere } from "@/commands/placeHere";
import { BigMeter, DeskTimeline, DeskView } from "@/features/desk";
import { DuckPanel } from "@/features/ducking";
import { HandoverView } from "@/features/handover";
import { Inspector } from "@/features/levels";
import { MarkersPanel } from "@/features/markers";
import { useLive } from "@/features/people";
import { DetachedPictures, PicturePane } from "@/features/picture";
import { Intake, SourcesShelf, useUploads } from "@/features/sources";
import { SpeechPanel } from "@/features/speech";
import { VersionsPanel } from "@/features/versions";
import { usePlayer } from "@/player";
import { useMix, useMixStore } from "@/store/context";
import type { MenuAsked } from "@/timeline";
import { FileDrop } from "./FileDrop";
import { Guide } from "./Guide";
import { Lanes } from "./Lanes";
import { Over } from "./Over";
import { Sheets, useSheets } from "./Sheets";
import { Side } from "./Side";
import { Skyline } from "./Skyline";
import { TargetMenu } from "./TargetMenu";
import { type Room, TopBar } from "./TopBar";
import { LayoutMenu } from "./LayoutMenu";
import { useArrangement } from "./useArrangement";
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
  const [hint, setHint] = useState("");
  const [tab, setTab, showHistory] = useTab();
  const [menu, setMenu] = useState<MenuAsked | null>(null);
  const [room, setRoom] = useKeptRoom(project);
  const [arrangement, arrange] = useArrangement();
  const panel = arrangement.panel[room] ? panelWidth : 0;
  const size = useLanesSize(scroller, panel);
  const { width } = size;
  const [view, setView] = useView(project, width);
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
  const go = useCallback((to: Room, next: string) => (setRoom(to), setTab(next)), [setRoom, setTab]);
  const layout = useMemo(
    () => <LayoutMenu {...{ room, arrangement, arrange }} onGo={go} />,
    [room, arrangement, arrange, go],
  );
  const seen = { view, setView, onHint: setHint, onMenu: setMenu };

  return (
    <DeskContext value={desk}>
      <FileDrop
        className="relative grid h-full grid-rows-[54px_minmax(0,1fr)_auto_64px]"
        onFiles={(files) => {
          uploads.add(files);
          setTab("sources");
        }}
      >
        <TopBar
          room={room}
          onRoom={setRoom}
          onClose={onClose}
          onKeys={showKeys}
          history={tab === "versions"}
          onHistory={showHistory}
          layout={layout}
        />
        <div
          className="relative grid min-h-0"
          style={{ gridTemplateColumns: `minmax(0,1fr) auto min(${panel}px, 40vw)` }}
        >
          {room === "intake" && <Intake uploads={uploads} />}
          {room === "handover" && <HandoverView onGo={goToBalance} />}
          {room === "desk" && (
            <DeskView timeline={<DeskTimeline {...seen} width={width} headsWidth={HEADS_WIDTH} />} />
          )}
          <Lanes {...seen} scroller={scroller} size={size} hidden={room !== "balance"} />
          {arrangement.meter && room === "balance" ? <BigMeter /> : <span />}
          {panel > 0 && (
            <Side
              width={panel}
              onWidth={setPanelWidth}
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
          )}
          <Over />
        </div>
        <div>
          {guide && room === "balance" && <Guide key={guide} kind={guide} onClose={() => setGuide(false)} />}
        </div>
        <Skyline
          view={view}
          setView={setView}
          width={width}
          hint={hint}
          headsWidth={HEADS_WIDTH}
          panelWidth={panelWidth}
        />
        <TargetMenu asked={menu} onClose={() => setMenu(null)} />
        <Sheets sheets={sheets} />
      </FileDrop>
    </DeskContext>
  );
}
