import { Check, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Comment } from "@/api/schema";
import { usePlayer } from "@/player";
import { newId } from "@/lib/ids";
import { formatTimecode } from "@/preview/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { useComments } from "./useComments";

/** What people say about moments: everybody says it, editors tick it off. */
export function CommentsSection() {
  const comments = useComments();
  const [all, setAll] = useState(false);
  const open = comments.filter((c) => c.doneBy === null);
  const shown = [...(all ? comments : open)].sort((a, b) => a.at - b.at);
  const done = comments.length - open.length;
  return (
    <section className="border-b border-line p-3" aria-label="Comments">
      <h2 className="caps mb-1">Comments · {open.length}</h2>
      <Say />
      <ul className="grid">
        {shown.map((comment) => (
          <CommentRow key={comment.id} comment={comment} />
        ))}
      </ul>
      {done > 0 && (
        <button type="button" className="button button-quiet mt-1 px-1.5" onClick={() => setAll(!all)}>
          {all ? "Hide what is ticked off" : `${done} ticked off`}
        </button>
      )}
    </section>
  );
}

/** Says whatever a request comes to, where it comes to nothing good. */
function useAsking() {
  const store = useMixStore();
  return async (request: Promise<unknown>): Promise<boolean> => {
    try {
      await request;
      return true;
    } catch (error) {
      const text = error instanceof Error ? error.message : String(error);
      store.getState().set({ notice: { kind: "error", text } });
      return false;
    }
  };
}

function Say() {
  const player = usePlayer();
  const store = useMixStore();
  const asking = useAsking();
  const field = useRef<HTMLTextAreaElement>(null);
  const [text, setText] = useState("");
  /** The moment it is about: where one was when the first letter was typed, for playing may go on. */
  const about = useRef<{ at: number; key: string } | null>(null);
  const say = async () => {
    const { project, commentsVersion, set } = store.getState();
    const { at, key } = about.current ?? { at: player.position, key: newId("comment") };
    if (!text.trim() || !(await asking(api.comment(project.id, Math.round(at), text, key)))) return;
    setText("");
    about.current = null;
    set({ commentsVersion: commentsVersion + 1 });
  };
  return (
    <form
      className="mb-1 flex items-end gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        void say();
      }}
    >
      <textarea
        ref={field}
        className="field min-h-0 flex-1 resize-none px-2 py-1"
        rows={text.length > 40 ? 3 : 1}
        maxLength={2000}
        aria-label="Say something about this moment"
        placeholder="About this moment…"
        value={text}
        onChange={(event) => {
          about.current ??= { at: player.position, key: newId("comment") };
          setText(event.target.value);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter" && !event.shiftKey) {
            event.preventDefault();
            void say();
          }
          if (event.key === "Escape") {
            setText("");
            about.current = null;
            field.current?.blur();
          }
        }}
      />
      <button className="button" disabled={!text.trim()}>
        Say
      </button>
    </form>
  );
}

function CommentRow({ comment }: { comment: Comment }) {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const asking = useAsking();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const me = useMix((s) => s.me.id);
  const owns = useMix((s) => s.project.role === "owner");
  const change = async (request: Promise<unknown>) => {
    if (await asking(request))
      store.getState().set({ commentsVersion: store.getState().commentsVersion + 1 });
  };
  const { id, at, text, author, cutOut, doneBy } = comment;
  const taken = useMix((s) => (s.comment?.id === id ? s.comment : null));
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (taken) row.current?.scrollIntoView({ block: "nearest" });
  }, [taken]);
  return (
    <li
      ref={row}
      className={`border-t border-line py-1.5 ${doneBy !== null ? "text-faint" : ""} ${taken ? "bg-glow" : ""}`}
    >
      <div className="flex items-center gap-1.5 text-note text-faint">
        <button
          type="button"
          className="figure cursor-pointer text-copper-text underline"
          title="Go there"
          onClick={() => player.seek(at)}
        >
          {formatTimecode(at, rate, frameRate)}
        </button>
        <span className="min-w-0 flex-1 truncate">
          {author.name}
          {cutOut && " · cut out since"}
          {doneBy !== null && ` · done, ${doneBy}`}
        </span>
        {canEdit && (
          <button
            type="button"
            className="grid cursor-pointer place-content-center aria-pressed:text-copper-text"
            aria-pressed={doneBy !== null}
            aria-label={`Tick off “${text}”`}
            title={doneBy === null ? "Tick off" : "Not done yet"}
            onClick={() => void change(api.changeComment(id, { done: doneBy === null }))}
          >
            <Check size={15} />
          </button>
        )}
        {(author.id === me || owns) && (
          <button
            type="button"
            className="grid cursor-pointer place-content-center hover:text-trouble"
            aria-label={`Remove “${text}”`}
            onClick={() => void change(api.removeComment(id))}
          >
            <X size={14} />
          </button>
        )}
      </div>
      <p className={`break-words whitespace-pre-wrap ${doneBy !== null ? "line-through" : ""}`}>{text}</p>
    </li>
  );
}
