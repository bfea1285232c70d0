export { Player } from "./player";
export { PlayerContext, usePlayer, useLevels } from "./context";
export { type Reading, SILENT } from "./meter";
export { useMoment } from "./useMoment";
