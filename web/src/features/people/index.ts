export { News } from "./News";
export { PeopleHere } from "./PeopleHere";
export { Saved } from "./Saved";
export { UndoQuestion } from "./UndoQuestion";
export { useLive } from "./useLive";
