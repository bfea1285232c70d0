export { DetachedPictures } from "./DetachedPictures";
export { PicturePane } from "./PicturePane";
