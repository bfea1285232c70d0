import { X } from "lucide-react";
import type { Marker } from "@/api/schema";
import { CommentsSection } from "./CommentsSection";
import { usePlayer } from "@/player";
import { newId } from "@/lib/ids";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TimeField } from "@/parts/TimeField";
import { TypedField } from "@/parts/TypedField";

/** Named moments in the order of time. */
export function MarkersPanel() {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const markers = useMix((s) => s.markers);
  const add = () =>
    void store.getState().edit({
      edit: "add-marker",
      marker: newId("marker"),
      at: player.position,
      name: `Marker ${markers.length + 1}`,
    });
  return (
    <>
      <CommentsSection />
      <section className="p-3" aria-label="Markers">
        <div className="mb-2 flex items-center justify-between">
          <h2 className="caps">Markers · {markers.length}</h2>
          {canEdit && (
            <button type="button" className="button px-2 py-0.5" title="At the playhead (M)" onClick={add}>
              Mark here
            </button>
          )}
        </div>
        {markers.length === 0 && (
          <p className="text-faint">
            Markers name moments: they stand on the horizon, and clips snap to them.
          </p>
        )}
        <ul className="grid gap-1">
          {markers.map((marker) => (
            <MarkerRow key={marker.id} marker={marker} />
          ))}
        </ul>
      </section>
    </>
  );
}

function MarkerRow({ marker }: { marker: Marker }) {
  const edit = useMixStore().getState().edit;
  const player = usePlayer();
  const canEdit = useCanEdit();
  return (
    <li className="grid grid-cols-[1fr_94px_auto_auto] items-center gap-1">
      <TypedField
        label="Marker name"
        shown={marker.name}
        disabled={!canEdit}
        className="!text-left font-sans"
        onCommit={(name) => edit({ edit: "set-marker", marker: marker.id, name })}
      />
      <TimeField
        label={`Time of ${marker.name}`}
        sample={marker.at}
        disabled={!canEdit}
        onCommit={(at) => edit({ edit: "set-marker", marker: marker.id, at })}
      />
      <button type="button" className="button px-1.5 py-0.5 text-note" onClick={() => player.seek(marker.at)}>
        Go
      </button>
      {canEdit && (
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-faint hover:text-trouble"
          aria-label={`Remove ${marker.name}`}
          onClick={() => void edit({ edit: "remove-markers", markers: [marker.id] })}
        >
          <X size={14} />
        </button>
      )}
    </li>
  );
}
