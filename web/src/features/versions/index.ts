export { CompareSwitch } from "./CompareSwitch";
export { VersionsPanel } from "./VersionsPanel";
