export { SourcesShelf } from "./SourcesShelf";
export { useUploads } from "./useUploads";
