import { CAPTION, type Layout } from "@/scene/geometry";

/** An empty programme says what goes where. */
export function Teaching({ layout }: { layout: Layout }) {
  const { clearance, horizon } = layout;
  const text = "pointer-events-none absolute inset-x-0 px-8 text-center text-faint";
  return (
    <>
      <p className={text} style={{ bottom: layout.height - clearance.top + 24 }}>
        <strong className="block text-head text-ink">Speech stands here, above the horizon</strong>
        Bring files in on the right, add a track on the horizon, then drag a recording onto it.
      </p>
      <p className={text} style={{ top: horizon.top + horizon.height + CAPTION + 24 }}>
        <strong className="block text-head text-ink">
          Music, ambience and effects rise from here, beneath it
        </strong>
        Their levels give way where somebody speaks: select a range and dip it.
      </p>
    </>
  );
}
