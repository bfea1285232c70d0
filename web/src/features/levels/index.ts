export { CloseUp } from "./CloseUp";
export { Inspector } from "./Inspector";
export { LevelSheet } from "./LevelSheet";
