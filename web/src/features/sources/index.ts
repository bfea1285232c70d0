export { Intake } from "./Intake";
export { SourcesShelf } from "./SourcesShelf";
export { useUploads } from "./useUploads";
