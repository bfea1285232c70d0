export { CommentMarks } from "./CommentMarks";
export { MarkersPanel } from "./MarkersPanel";
