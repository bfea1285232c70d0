import { useMix } from "@/store/context";
import { Floating } from "./Floating";
import { usePicturePlace } from "./place";
import { ShownPicture } from "./ShownPicture";

/** The picture over the work, in whatever view; nothing where it stands in the panel. */
export function FloatingPicture() {
  const any = useMix((s) => s.strip.length > 0);
  const { floating, put } = usePicturePlace();
  if (!any || !floating) return null;
  return (
    <Floating
      place={floating}
      onPlace={(place) => put({ floating: place })}
      onDock={() => put({ floating: null, aside: false })}
    >
      <ShownPicture />
    </Floating>
  );
}
