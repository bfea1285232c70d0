export { type MenuAsked, Timeline } from "./Timeline";
export { SOURCE_DRAG } from "./useDropping";
export { amountOf } from "./useTyping";
export { moveMuteEdge } from "./sideGestures";
