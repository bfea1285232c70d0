export { HandoverView } from "./HandoverView";
