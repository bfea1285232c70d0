import { CORE } from "@/preview/constants";
import type { Track } from "@/api/schema";
import { useCanEdit, useMixStore } from "@/store/context";

interface Props {
  track: Track;
  renaming: boolean;
  onRenaming: (renaming: boolean) => void;
}

/** The name of a track; a double click renames it. */
export function TrackName({ track, renaming, onRenaming }: Props) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  return renaming ? (
    <input
      className="field min-w-0 flex-1 py-0"
      aria-label="Track name"
      defaultValue={track.name}
      maxLength={CORE.longestName}
      autoFocus
      onBlur={(event) => {
        onRenaming(false);
        if (event.target.value.trim() !== track.name)
          void edit({ edit: "rename-track", track: track.id, name: event.target.value });
      }}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") onRenaming(false);
        event.stopPropagation();
      }}
    />
  ) : (
    <span
      className="min-w-0 flex-1 truncate font-semibold"
      title={track.name}
      onDoubleClick={() => canEdit && onRenaming(true)}
    >
      {track.name}
    </span>
  );
}
