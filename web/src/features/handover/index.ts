export { Handover } from "./Handover";
