export { DeskView } from "./DeskView";
