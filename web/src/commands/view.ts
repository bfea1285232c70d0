import { fitAll, fitSpan, zoomBy } from "@/scene/viewport";
import { type CommandGroup, here, refuse, selectedClips } from "./command";
import { switchAB } from "./compare";

/** Bar, heads and lanes, panel, skyline: the focus goes to the first control of the next one. */
function goToArea(by: 1 | -1): void {
  const areas = [...document.querySelectorAll<HTMLElement>("[data-area]")].filter(
    (a) => a.offsetParent !== null,
  );
  const now = areas.findIndex((area) => area.contains(document.activeElement));
  const next = areas[(now < 0 && by < 0 ? areas.length - 1 : now + by + areas.length) % areas.length];
  next
    ?.querySelector<HTMLElement>("button:not(:disabled), input:not([hidden]), select, [tabindex='0']")
    ?.focus();
}

export const VIEW: CommandGroup = {
  title: "See and compare",
  commands: [
    {
      id: "compare",
      title: "Hear the other of A and B",
      keys: ["C"],
      run: ({ store }) => void switchAB(store),
    },
    {
      id: "closer",
      title: "Closer",
      keys: ["+", "="],
      run: (d, s) => d.setView((v) => zoomBy(v, 1 / 1.5, d.width, s, here(d, s))),
    },
    {
      id: "farther",
      title: "Farther",
      keys: ["-"],
      run: (d, s) => d.setView((v) => zoomBy(v, 1.5, d.width, s, here(d, s))),
    },
    {
      id: "all",
      title: "The whole programme",
      keys: ["A"],
      run: ({ setView, width }, s) => setView(() => fitAll(width, s)),
    },
    {
      id: "range-view",
      title: "The range, or the selected clip",
      keys: ["R"],
      run: ({ setView, width }, s) => {
        const clip = selectedClips(s)[0];
        const span = s.range ?? (clip ? { from: clip.at, to: clip.at + clip.length } : null);
        if (span) setView(() => fitSpan(span.from, span.to, width, s));
        else refuse(s, "There is no range to show. Drag across a lane to select one.");
      },
    },
    {
      id: "wires",
      title: "Hide or show the wires of the clip’s track",
      keys: ["L"],
      run: (_d, s) => {
        const track = selectedClips(s)[0]?.track;
        if (!track) return refuse(s, "Select a clip first; then the wires of its track are hidden or shown.");
        const hidden = s.hiddenWires.includes(track);
        s.set({
          hiddenWires: hidden ? s.hiddenWires.filter((t) => t !== track) : [...s.hiddenWires, track],
        });
      },
    },
    { id: "next-area", title: "To the next part of the screen", keys: ["F6"], run: () => goToArea(1) },
    { id: "area-before", title: "To the part before", keys: ["Shift+F6"], run: () => goToArea(-1) },
    { id: "keys", title: "This sheet", keys: ["?"], run: ({ show }) => show("keys") },
  ],
};
