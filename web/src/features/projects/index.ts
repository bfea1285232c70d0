export { ProjectList } from "./ProjectList";
