export { DetachedPictures } from "./DetachedPictures";
export { FloatingPicture } from "./FloatingPicture";
export { PicturePane } from "./PicturePane";
