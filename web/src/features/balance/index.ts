export { Balance } from "./Balance";
