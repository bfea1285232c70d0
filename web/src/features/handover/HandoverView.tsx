import { Files } from "./Files";
import { LoudnessPicture } from "./LoudnessPicture";
import { OneFile } from "./OneFile";
import { Recipes } from "./Recipes";
import { Standing } from "./Standing";

/** Where a programme leaves the house: how it stands to its target, what is made of it, and what came of that. */
export function HandoverView({ onGo }: { onGo: () => void }) {
  return (
    <section
      className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]"
      aria-label="Handover"
      data-area="handover"
    >
      <div className="border-b border-line px-4 py-2.5">
        <Standing />
        <LoudnessPicture onGo={onGo} />
      </div>
      <div className="grid min-h-0 grid-cols-[minmax(270px,2fr)_minmax(0,3fr)]">
        <div className="min-h-0 min-w-0 overflow-x-hidden overflow-y-auto border-r border-line px-4 py-3">
          <Recipes />
          <OneFile onGo={onGo} />
        </div>
        <Files onGo={onGo} />
      </div>
    </section>
  );
}
