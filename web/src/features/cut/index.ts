export { CutImport } from "./CutImport";
export { LayTogether } from "./LayTogether";
