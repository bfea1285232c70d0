export { Player, type Levels } from "./player";
export { PlayerContext, usePlayer, useLevels } from "./context";
export { Envelope } from "./envelope";
export { useMoment } from "./useMoment";
