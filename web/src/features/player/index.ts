export { Player, type Levels } from "./player";
export { PlayerContext, usePlayer, useLevels } from "./context";
export { Envelope } from "./envelope";
export { type Reading, SILENT } from "./meter";
export { useMoment } from "./useMoment";
