import { useCallback, useMemo, useRef, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { api } from "@/api/client";
import { sendFile, type Upload } from "./upload";

/** Uploads of this page, one after the other; what has arrived is the server's to tell of. */
export function useUploads(project: string) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const files = useRef(new Map<string, { file: File; stop: AbortController }>());
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const client = useQueryClient();

  const change = useCallback((key: string, part: Partial<Upload>) => {
    setUploads((all) => all.map((u) => (u.key === key ? { ...u, ...part } : u)));
  }, []);
  const drop = useCallback((key: string) => {
    files.current.delete(key);
    setUploads((all) => all.filter((u) => u.key !== key));
  }, []);

  const start = useCallback(
    (key: string) => {
      const entry = files.current.get(key);
      if (!entry) return;
      queue.current = queue.current.then(async () => {
        if (entry.stop.signal.aborted) return;
        try {
          if (await sendFile(project, entry.file, (part) => change(key, part), entry.stop.signal)) drop(key);
        } catch (error) {
          change(key, { problem: error instanceof Error ? error.message : String(error) });
        }
        await client.invalidateQueries({ queryKey: ["sources", project] });
      });
    },
    [project, change, drop, client],
  );

  const add = useCallback(
    (list: Iterable<File>) => {
      for (const file of list) {
        const key = crypto.randomUUID();
        files.current.set(key, { file, stop: new AbortController() });
        setUploads((all) => [
          ...all,
          { key, name: file.name, size: file.size, sent: 0, source: null, problem: null },
        ]);
        start(key);
      }
    },
    [start],
  );

  const cancel = useCallback(
    async (upload: Upload) => {
      files.current.get(upload.key)?.stop.abort();
      drop(upload.key);
      if (upload.source) await api.removeSource(upload.source).catch(() => undefined);
      await client.invalidateQueries({ queryKey: ["sources", project] });
    },
    [project, drop, client],
  );

  const retry = useCallback(
    (upload: Upload) => {
      const entry = files.current.get(upload.key);
      if (!entry) return;
      entry.stop = new AbortController();
      if (upload.source) void api.removeSource(upload.source).catch(() => undefined);
      change(upload.key, { problem: null, sent: 0, source: null });
      start(upload.key);
    },
    [change, start],
  );

  return useMemo(() => ({ uploads, add, cancel, retry }), [uploads, add, cancel, retry]);
}
