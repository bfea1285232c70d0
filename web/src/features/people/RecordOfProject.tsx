import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import { useMix } from "@/store/context";

/** Who signed in, shared and deleted, for owners; read when it is wanted. */
export function RecordOfProject() {
  const project = useMix((s) => s.project.id);
  const [open, setOpen] = useState(false);
  const { data, error } = useQuery({
    queryKey: ["record", project],
    queryFn: () => api.record(project),
    enabled: open,
    staleTime: 0,
  });
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label="Record">
      <button
        type="button"
        className="button button-quiet"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        Who did what
      </button>
      {error && (
        <p role="alert" className="text-trouble">
          {error.message}
        </p>
      )}
      {open && data && (
        <ol className="mt-1 max-h-60 overflow-y-auto text-aside" aria-label="Who did what, newest first">
          {data.entries.map((entry, i) => (
            <li key={i} className="flex gap-3 border-t border-line py-1">
              <time className="figure shrink-0 text-faint" dateTime={entry.at}>
                {new Date(entry.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
              </time>
              <span className="min-w-0 flex-1">
                {entry.who} {entry.what}
              </span>
              <span className="figure shrink-0 text-faint" title="Where from">
                {entry.address}
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
