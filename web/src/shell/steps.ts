import type { MixState } from "@/store/mixStore";

export interface Step {
  what: string;
  how: string;
  /** @param begun the revision when the steps were first shown */
  done: (s: MixState, begun: number) => boolean;
}

/** From an empty project to a dipped bed. */
export const FIRST_STEPS: Step[] = [
  {
    what: "Bring in a voice and a piece of music",
    how: "Drop the files anywhere on this page. Intake sets a rough level for each.",
    done: (s) => Object.keys(s.sources).length > 0,
  },
  {
    what: "Add a track for speech and one for music",
    how: "“+ Track” on the horizon: speech stands above it, the rest rises from beneath.",
    done: (s) => s.tracks.some((t) => t.stem === "speech") && s.tracks.some((t) => t.stem !== "speech"),
  },
  {
    what: "Lay both out",
    how: "Drag each source from “Sources” onto its track; move it by its name.",
    done: (s) => new Set(Object.values(s.clips).map((c) => c.track)).size > 1,
  },
  {
    what: "Dip the music under the voice",
    how: "Drag across the music where the voice speaks, then drag down inside. Two gestures, four keyframes.",
    done: (s) => Object.values(s.clips).some((c) => c.curve.length >= 4),
  },
  {
    what: "Fade something in",
    how: "Drag the half-round grip at a clip’s corner.",
    done: (s) => Object.values(s.clips).some((c) => (c.fadeIn?.length ?? 0) + (c.fadeOut?.length ?? 0) > 0),
  },
  {
    what: "Hear before and after",
    how: "Press C while it plays: A is the state before, B the present.",
    done: (s) => s.hearing !== null,
  },
];

/** Around a project in which there is something to hear. */
export const TOUR: Step[] = [
  {
    what: "Hear it",
    how: "Space plays and stops; a click on the time goes anywhere.",
    done: (s) => s.playedFrom !== null,
  },
  {
    what: "Find speech that is buried",
    how: "G goes to the next stretch that something covers. The strip on the horizon shows them all.",
    done: (s) => s.stretch !== null,
  },
  {
    what: "Dip what covers it",
    how: "S lowers it there, by as much as the speech needs.",
    done: (s, begun) => s.revision > begun,
  },
  {
    what: "Hear before and after",
    how: "Press C while it plays: A is the state before, B the present.",
    done: (s) => s.hearing !== null,
  },
  {
    what: "Change a level by hand",
    how: "Drag the copper wire of a clip up or down; or drag across a lane, and then down inside.",
    done: (s, begun) => s.revision > begun + 1,
  },
  {
    what: "Take it back",
    how: "Ctrl+Z. Nothing is ever lost: the clock beside undo has every step.",
    done: (s) => s.canRedo,
  },
];
