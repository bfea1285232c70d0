export { CutImport } from "./CutImport";
