export { BankPage } from "./BankPage";
export { BigMeter } from "./BigMeter";
export { DeskTimeline } from "./DeskTimeline";
export { DeskView } from "./DeskView";
