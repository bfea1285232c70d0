import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { api } from "@/api/client";
import type { Snapshot } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { HistoryPanel } from "./HistoryPanel";
import { Menu, MenuItem, MenuLine } from "@/parts/Menu";
import { matchLevels, stateA, switchAB } from "@/commands/compare";

/** Snapshots to come back to and to compare with, what changed since, and every edit. */
export function VersionsPanel() {
  const store = useMixStore();
  const hearAsA = useCallback(
    (state: { revision: number; name: string }) => {
      const now = store.getState();
      // The same key again goes back to the present, as everywhere.
      const again = now.hearing?.revision === state.revision;
      if (now.hearing && !again) now.hear(null);
      now.set({ against: state });
      void switchAB(store);
    },
    [store],
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 p-3">
      <Snapshots />
      <Changes />
      <section aria-label="Edits">
        <h2 className="caps mb-1">Edits</h2>
        <HistoryPanel onHear={hearAsA} />
      </section>
    </div>
  );
}

function useSnapshots() {
  const project = useMix((s) => s.project.id);
  return useQuery({ queryKey: ["snapshots", project], queryFn: () => api.snapshots(project) });
}

function Snapshots() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const project = useMix((s) => s.project.id);
  const queries = useQueryClient();
  const { data = [] } = useSnapshots();
  const [name, setName] = useState("");
  const again = () => queries.invalidateQueries({ queryKey: ["snapshots", project] });
  const take = async () => {
    try {
      await store.getState().settled();
      const { revision } = store.getState();
      await api.takeSnapshot(project, name.trim() || `Snapshot ${data.length + 1}`, revision);
      setName("");
      await again();
    } catch (error) {
      store
        .getState()
        .set({ notice: { kind: "error", text: error instanceof Error ? error.message : String(error) } });
    }
  };
  return (
    <section aria-label="Snapshots">
      <h2 className="caps mb-1">Snapshots</h2>
      {canEdit && (
        <form
          className="mb-1.5 flex gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            void take();
          }}
        >
          <input
            className="field min-w-0 flex-1 px-2 py-0.5"
            aria-label="Name of the snapshot"
            placeholder={`Snapshot ${data.length + 1}`}
            maxLength={200}
            value={name}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
          <button className="button">Take</button>
        </form>
      )}
      {data.length === 0 && (
        <p className="text-faint">A snapshot names the present state, to come back to or to compare with.</p>
      )}
      <ul>
        {data.map((snapshot) => (
          <SnapshotRow key={snapshot.id} snapshot={snapshot} onChange={() => void again()} />
        ))}
      </ul>
    </section>
  );
}

function SnapshotRow({ snapshot, onChange }: { snapshot: Snapshot; onChange: () => void }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const isA = useMix((s) => s.against?.revision === snapshot.revision && s.against.name === snapshot.name);
  const [renaming, setRenaming] = useState(false);
  const { revision, name } = snapshot;
  return (
    <li className={`flex items-center gap-1.5 rounded-md px-1.5 py-0.5 ${isA ? "bg-glow" : ""}`}>
      {renaming ? (
        <input
          className="field min-w-0 flex-1 px-1.5 py-0"
          aria-label="Name of the snapshot"
          defaultValue={name}
          autoFocus
          maxLength={200}
          onBlur={(event) => {
            setRenaming(false);
            const next = event.target.value.trim();
            if (next && next !== name) void api.renameSnapshot(snapshot.id, next).then(onChange);
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter") event.currentTarget.blur();
            if (event.key === "Escape") setRenaming(false);
          }}
        />
      ) : (
        <span className="min-w-0 flex-1 truncate" title={`${name} · ${snapshot.author}`}>
          {name}
        </span>
      )}
      <button
        type="button"
        className="button px-2 py-0 text-aside"
        aria-pressed={isA}
        title="Compare the present with this: A"
        onClick={() => {
          store.getState().set({ against: isA ? null : { revision, name } });
          void matchLevels(store);
        }}
      >
        A
      </button>
      {canEdit && (
        <Menu
          trigger={
            <button type="button" className="button button-quiet px-1.5 py-0" aria-label={`More for ${name}`}>
              …
            </button>
          }
        >
          <MenuItem onSelect={() => void store.getState().takeUp(snapshot.id)}>Go back to it</MenuItem>
          <MenuItem onSelect={() => setRenaming(true)}>Rename…</MenuItem>
          <MenuLine />
          <MenuItem trouble onSelect={() => void api.removeSnapshot(snapshot.id).then(onChange)}>
            Drop the name
          </MenuItem>
        </Menu>
      )}
    </li>
  );
}

/** What changed from A to the present, in words. */
function Changes() {
  const project = useMix((s) => s.project.id);
  const present = useMix((s) => s.revision);
  const against = useMix((s) => stateA(s)?.revision ?? null);
  const name = useMix((s) => stateA(s)?.name ?? "");
  const { data } = useQuery({
    queryKey: ["compare", project, against, present],
    queryFn: () => api.compare(project, against ?? present, present),
    enabled: against !== null,
    placeholderData: (old) => old,
  });
  if (against === null || !data) return null;
  const [a, b] = data.loudness;
  return (
    <section aria-label="What changed">
      <h2 className="caps mb-1">From A, {name}</h2>
      {a !== null && b !== null && a !== undefined && b !== undefined && (
        <p className="figure mb-1 text-note text-faint">
          {formatDb(a)} → {formatDb(b)} LUFS ({formatDb(b - a)} LU)
        </p>
      )}
      <ul className="max-h-44 overflow-y-auto text-aside" tabIndex={0} aria-label="Changes">
        {data.changes.length === 0 && <li className="text-faint">Nothing is otherwise.</li>}
        {data.changes.map((change) => (
          <li key={change} className="border-l-2 border-line py-0.5 pl-2">
            {change}
          </li>
        ))}
      </ul>
    </section>
  );
}
