export { Heads } from "./Heads";
