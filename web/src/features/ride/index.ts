export { RecorderContext, useRecorder } from "./context";
export { FADER_BOTTOM, faderAt, Recorder } from "./recorder";
