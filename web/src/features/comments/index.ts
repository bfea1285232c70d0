export { CommentMarks } from "./CommentMarks";
export { CommentsSection } from "./CommentsSection";
