import { ARRANGE } from "./arrange";
import type { CommandGroup } from "./command";
import { LEVELS } from "./levels";
import { LISTEN } from "./listen";
import { SELECT } from "./select";
import { VIEW } from "./view";

/** All that keys can do, in the order of the sheet. */
export const COMMANDS: CommandGroup[] = [LISTEN, SELECT, LEVELS, ARRANGE, VIEW];
export type { Command, Desk, Sheet } from "./command";
