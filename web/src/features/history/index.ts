export { HistoryPanel } from "./HistoryPanel";
