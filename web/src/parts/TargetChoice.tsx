import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import type { OwnTarget } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** EBU R 128; ATSC A/85; the podcast ones are common practice. LUFS, dBTP. */
const TARGETS = [
  ["Broadcast, EBU R 128", -23, -1],
  ["Broadcast, ATSC A/85", -24, -2],
  ["Podcast, stereo", -16, -1],
  ["Podcast, mono", -19, -1],
] as const;

/** What the programme is to reach: one of the usual targets, one that was kept by name, or whatever it was set to, which can be kept. */
export function TargetChoice({ keeps = false }: { keeps?: boolean }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const aim = useMix((s) => s.aim);
  const { data: own = [] } = useQuery({ queryKey: ["targets"], queryFn: api.ownTargets });
  const all = [...TARGETS.map(([name, loudness, truePeak]) => ({ name, loudness, truePeak })), ...own];
  const target = all.findIndex((t) => t.loudness === aim.loudness && t.truePeak === aim.truePeak);
  return (
    <div className="grid grid-cols-[auto_1fr_auto] items-center gap-2">
      <span className="text-faint">Target</span>
      <select
        className="field min-w-0 py-0.5 text-aside"
        aria-label="Loudness target"
        disabled={!canEdit}
        value={target}
        onChange={(event) => {
          const chosen = all[Number(event.target.value)];
          if (chosen)
            void store
              .getState()
              .edit({ edit: "set-aim", loudness: chosen.loudness, truePeak: chosen.truePeak });
        }}
      >
        {target < 0 && (
          <option value={-1}>{`${formatDb(aim.loudness)} LUFS, ${formatDb(aim.truePeak)} dBTP`}</option>
        )}
        {all.map(({ name, loudness }, i) => (
          <option key={name} value={i}>
            {name}: {formatDb(loudness)} LUFS
          </option>
        ))}
      </select>
      {keeps && <Keep own={own} chosen={own[target - TARGETS.length] ?? null} isNew={target < 0} aim={aim} />}
    </div>
  );
}

function Keep({
  own,
  chosen,
  isNew,
  aim,
}: {
  own: OwnTarget[];
  chosen: OwnTarget | null;
  isNew: boolean;
  aim: { loudness: number; truePeak: number };
}) {
  const client = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: (targets: OwnTarget[]) => api.keepTargets(targets),
    onSuccess: (targets) => {
      client.setQueryData(["targets"], targets);
      setName(null);
    },
  });
  if (chosen)
    return (
      <button
        type="button"
        className="button button-quiet px-1.5 text-aside"
        title={`No longer keeps the target ${chosen.name}; the project stays at it`}
        onClick={() => save.mutate(own.filter((t) => t !== chosen))}
      >
        Forget
      </button>
    );
  if (!isNew) return null;
  if (name === null)
    return (
      <button
        type="button"
        className="button button-quiet px-1.5 text-aside"
        title="Keeps this target by a name, for all your projects"
        onClick={() => setName("")}
      >
        Keep…
      </button>
    );
  return (
    <form
      className="flex gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) save.mutate([...own, { name, loudness: aim.loudness, truePeak: aim.truePeak }]);
      }}
    >
      <input
        autoFocus
        className="field w-28 py-0.5 text-aside"
        aria-label="Name of this target"
        placeholder="a name"
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && setName(null)}
      />
      <button className="button px-1.5 text-aside">Keep</button>
    </form>
  );
}
