export { BankPage } from "./BankPage";
export { DeskTimeline } from "./DeskTimeline";
export { DeskView } from "./DeskView";
