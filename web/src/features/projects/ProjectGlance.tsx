import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
import type { Project } from "@/api/schema";
import { formatDb } from "@/lib/format";

/** What a project is, beside its name: how long, how loud, what it looks like, who is in it, what was done last. */
export function ProjectGlance({ project }: { project: Project }) {
  const { data } = useQuery({
    queryKey: ["glance", project.id, project.changedAt],
    queryFn: () => api.glance(project.id),
    staleTime: 60_000,
    retry: false,
  });
  const changed = new Date(project.changedAt).toLocaleString("en-GB", {
    dateStyle: "medium",
    timeStyle: "short",
  });
  return (
    <span className="mt-1 flex items-center gap-4 text-aside text-faint">
      <TinySkyline speech={data?.speech ?? []} rest={data?.rest ?? []} />
      <span className="min-w-0">
        <span className="block truncate">
          {data && (
            <>
              <span className="figure">{lengthOf(data.seconds)}</span>
              {data.loudness !== null && (
                <span className="figure"> · {formatDb(data.loudness)} LUFS</span>
              )} · {data.people.join(", ")} ·{" "}
            </>
          )}
          {project.role}
        </span>
        <span className="block truncate">
          changed {changed}
          {data?.label && `: ${data.label}, by ${data.by}`}
        </span>
      </span>
    </span>
  );
}

const SIZE = { width: 168, height: 34 };

/** Loudness that takes all of the room, and that which takes none, LUFS. */
const [LOUD, SOFT] = [-10, -50];

/** Speech above the line, all else beneath it. */
function TinySkyline({ speech, rest }: { speech: (number | null)[]; rest: (number | null)[] }) {
  const middle = 20;
  const part = (lufs: number | null) =>
    lufs === null ? 0 : Math.max(0, Math.min(1, (lufs - SOFT) / (LOUD - SOFT)));
  const bars = (values: (number | null)[], room: number, way: 1 | -1) =>
    values
      .map((value, i) => {
        const width = SIZE.width / values.length;
        const size = room * part(value);
        return `M${(i * width).toFixed(2)} ${middle}h${(width * 0.8).toFixed(2)}v${(way * size).toFixed(2)}h${(-width * 0.8).toFixed(2)}z`;
      })
      .join("");
  return (
    <svg {...SIZE} className="shrink-0 rounded bg-sunk/60" aria-hidden>
      <path d={bars(speech, middle - 2, -1)} fill="var(--speech)" />
      <path d={bars(rest, SIZE.height - middle - 2, 1)} fill="var(--music)" />
      <rect x={0} y={middle - 0.5} width={SIZE.width} height={1} fill="var(--ink)" opacity={0.5} />
    </svg>
  );
}

function lengthOf(seconds: number): string {
  const whole = Math.round(seconds);
  const two = (n: number) => String(n).padStart(2, "0");
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor(whole / 60) % 60;
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}
