export { ProgrammeMeter } from "./ProgrammeMeter";
export { SpeechPanel } from "./SpeechPanel";
