export { DeskView } from "./DeskView";
export { DeskTimeline } from "./DeskTimeline";
