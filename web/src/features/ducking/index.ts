export { DuckPanel } from "./DuckPanel";
