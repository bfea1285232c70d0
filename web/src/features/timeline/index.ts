export { type MenuAsked, SOURCE_DRAG, Timeline } from "./Timeline";
export type { Target } from "./hit";
export { CAPTION, type Layout, layOut, layOutShort, type Lane, type View } from "./geometry";
export { clipsInRange, heardLevelAt } from "./levels";
export { inkOf } from "./scene";
export { useOutlines } from "./useOutlines";
export { clampView, fitAll, fitSpan, zoomBy } from "./viewport";
export { amountOf } from "./useTyping";
export { moveMuteEdge } from "./sideGestures";
