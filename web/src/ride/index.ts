export { RecorderContext, useRecorder } from "./context";
export { moveFader, typeFader } from "./moveFader";
export { FADER_BOTTOM, faderAt, Recorder } from "./recorder";
export { useFader } from "./useFader";
