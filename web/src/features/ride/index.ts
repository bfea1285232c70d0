export { RecorderContext, useRecorder } from "./context";
export { moveFader } from "./moveFader";
export { FADER_BOTTOM, faderAt, Recorder } from "./recorder";
export { useFader } from "./useFader";
