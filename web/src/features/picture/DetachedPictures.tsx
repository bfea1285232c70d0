import { useMix } from "@/store/context";
import { DetachedPicture } from "./DetachedPicture";

/** The pictures that have been parted from their sound. */
export function DetachedPictures() {
  const pictures = useMix((s) => s.pictures);
  if (pictures.length === 0) return null;
  return (
    <section className="p-3" aria-label="Pictures by themselves">
      <h2 className="caps mb-1">Pictures by themselves · {pictures.length}</h2>
      <div className="-mx-3 divide-y divide-line">
        {pictures.map((picture) => (
          <DetachedPicture key={picture.id} id={picture.id} />
        ))}
      </div>
    </section>
  );
}
