import { ChevronDown, ChevronUp, PictureInPicture2 } from "lucide-react";
import { useMix } from "@/store/context";
import { DetachedPicture } from "./DetachedPicture";
import { usePicturePlace } from "./place";
import { useShowing } from "./Screen";
import { ShownPicture } from "./ShownPicture";

/** The picture in the panel: in step with the sound, frame by frame when it stands, or out of the way; nothing while it floats. */
export function PicturePane() {
  const any = useMix((s) => s.strip.length > 0);
  const { aside, floating, put } = usePicturePlace();
  const showing = useShowing();
  if (!any || floating) return null;
  return (
    <section aria-label="Picture" className="border-b border-line">
      <div className="flex items-center pr-2">
        <button
          type="button"
          className="flex min-h-6 flex-1 cursor-pointer items-center gap-1.5 px-3 py-1 text-faint"
          aria-expanded={!aside}
          onClick={() => put({ aside: !aside })}
        >
          {aside ? <ChevronDown size={14} aria-hidden /> : <ChevronUp size={14} aria-hidden />}
          <span className="caps">Picture</span>
          <span className="sr-only">{aside ? "show the picture" : "put the picture aside"}</span>
        </button>
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-faint hover:text-ink"
          aria-label="Let the picture float"
          title="Let the picture float, as large as you want it"
          onClick={() => put({ floating: { x: 240, y: 90, width: 640 } })}
        >
          <PictureInPicture2 size={14} />
        </button>
      </div>
      {!aside && <ShownPicture />}
      {!aside && showing && <DetachedPicture id={showing.id} />}
    </section>
  );
}
