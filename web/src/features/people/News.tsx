import { useEffect } from "react";
import { useMix, useMixStore } from "@/store/context";

const SHOWN_MS = 7000;

/** What others have just done, for a few seconds, in a place where it disturbs nothing. */
export function News() {
  const store = useMixStore();
  const news = useMix((s) => s.news);
  useEffect(() => {
    if (!news) return;
    const timer = setTimeout(() => store.getState().set({ news: null }), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [store, news]);
  const last = news?.others.at(-1);
  if (!news || !last) return null;
  const more = news.others.length - 1;
  return (
    <div
      role="status"
      className="max-w-full truncate rounded-lg border border-line bg-sheet px-3 py-1 text-aside shadow-lg"
      title={news.others.map((o) => `${o.name}: ${o.what}`).join("\n")}
    >
      <strong>{last.name}</strong>: {last.what}
      {more > 0 && <span className="text-faint"> · and {more} more</span>}
    </div>
  );
}
