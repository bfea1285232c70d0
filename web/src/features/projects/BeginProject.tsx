import { CORE } from "@/preview/constants";
import { useMutation } from "@tanstack/react-query";
import { FolderPlus } from "lucide-react";
import { useRef } from "react";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import { newId } from "@/lib/ids";
import { FRAME_RATES } from "@/preview/timecode";
import { useSettled } from "./useSettled";

/** Begins a project, by a name and its frame rate. */
export function BeginProject({ onOpen }: { onOpen: (project: string) => void }) {
  const settled = useSettled();
  const begun = useRef(false);
  const create = useMutation({
    mutationFn: (v: { name: string; frameRate: string; key: string }) =>
      api.createProject(v.name, v.frameRate, v.key),
    onSuccess: (p) => onOpen(p.id),
    ...askedAgain,
    onError: () => (begun.current = false),
    ...settled,
  });
  return (
    <form
      className="grid h-fit gap-3 rounded-xl border border-line bg-sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (begun.current) return; // a double click begins one
        begun.current = true;
        const form = new FormData(event.currentTarget);
        create.mutate({
          name: String(form.get("name")),
          frameRate: String(form.get("frameRate")),
          key: newId("begin"),
        });
      }}
    >
      <h2 className="font-semibold">Begin a project</h2>
      <label className="grid gap-1">
        <span className="text-faint">Name</span>
        <input
          className="field"
          name="name"
          required
          maxLength={CORE.longestName}
          defaultValue={`Programme of ${new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long" })}`}
          onFocus={(event) => event.currentTarget.select()}
        />
      </label>
      <label className="grid gap-1">
        <span className="text-faint">Frames per second, for timecode</span>
        <select className="field figure" name="frameRate" defaultValue="25">
          {FRAME_RATES.map((rate) => (
            <option key={rate} value={rate}>
              {rate === "29.97df" ? "29.97 drop-frame" : rate}
            </option>
          ))}
        </select>
      </label>
      {create.error && (
        <p role="alert" className="text-trouble">
          {create.error.message}
        </p>
      )}
      <button className="button button-main" aria-disabled={create.isPending || create.isSuccess}>
        <FolderPlus size={15} aria-hidden /> Begin
      </button>
    </form>
  );
}
