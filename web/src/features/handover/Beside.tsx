import { useCanEdit, useMix } from "@/store/context";
import { useHandOver } from "./useFiles";

/** What goes beside the files: the cut, and where there are some, markers as chapters, and captions. */
export function Beside({ project }: { project: string }) {
  const markers = useMix((s) => s.markers.length);
  const captions = useMix((s) => s.captions.length);
  const canEdit = useCanEdit();
  const { begin, isPending } = useHandOver();
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-aside">
      {canEdit && (
        <button
          type="button"
          className="min-h-6 cursor-pointer underline"
          title="One file with the mix, its sources as they were sent, captions and snapshots. Brought into a new project, it is this one again"
          disabled={isPending}
          onClick={() => void begin({ files: [{ format: "archive" }], pattern: "{project} r{revision}" })}
        >
          The project as an archive
        </button>
      )}
      <a
        className="min-h-6 underline"
        href={`/api/projects/${project}/mix.otio`}
        title="Tracks, clips, crossfades and markers for other programs, in OpenTimelineIO; the whole mix goes along as metadata"
        download
      >
        The cut as OTIO
      </a>
      <a
        className="min-h-6 underline"
        href={`/api/projects/${project}/mix.edl`}
        title="One line for each clip, in whole frames: an edit decision list for what reads nothing else"
        download
      >
        as EDL
      </a>
      {markers > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/chapters.json`} download>
          Chapters as JSON
        </a>
      )}
      {captions > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/captions.vtt`} download>
          Captions as WebVTT
        </a>
      )}
      {captions > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/captions.srt`} download>
          as SRT
        </a>
      )}
    </p>
  );
}
