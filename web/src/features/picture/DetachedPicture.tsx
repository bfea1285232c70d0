import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TimeField } from "@/parts/TimeField";

/** A picture that stands by itself can be moved, trimmed and taken away. Nothing for one that goes with its sound. */
export function DetachedPicture({ id }: { id: string }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const own = useMix((s) => s.pictures.find((p) => p.id === id));
  const name = useMix((s) => s.sources[own?.source ?? ""]?.name ?? "a film");
  if (!own) return null;
  const [from, to] = [own.at, own.at + own.length];
  const trim = (part: { from?: string; to?: string }) =>
    edit({ edit: "trim-picture", picture: id, from: part.from ?? from, to: part.to ?? to });
  return (
    <div
      role="group"
      aria-label={`Picture of ${name}, by itself`}
      className="grid grid-cols-[1fr_98px] items-center gap-x-1.5 gap-y-1 px-3 py-1.5 text-aside"
    >
      <span className="truncate text-faint" title="It stays where it is while its sound is moved or cut">
        {name}, by itself: moved to
      </span>
      <TimeField
        label="The picture starts"
        sample={own.at}
        disabled={!canEdit}
        onCommit={(at) => edit({ edit: "move-picture", picture: id, at })}
      />
      <span className="text-faint">shown from</span>
      <TimeField
        label="The picture is shown from"
        sample={from}
        disabled={!canEdit}
        onCommit={(text) => trim({ from: text })}
      />
      <span className="text-faint">to</span>
      <TimeField
        label="The picture is shown to"
        sample={to}
        disabled={!canEdit}
        onCommit={(text) => trim({ to: text })}
      />
      <button
        type="button"
        className="button col-start-2 px-1.5 py-0.5"
        disabled={!canEdit}
        onClick={() => void edit({ edit: "remove-pictures", pictures: [id] })}
      >
        Remove
      </button>
    </div>
  );
}
