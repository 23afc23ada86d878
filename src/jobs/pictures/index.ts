export { embeddedFonts } from "./fonts";
export { pageName } from "./page";
export { type PictureOptions, pictureOf, sceneFile } from "./picture";
export { PictureTooLarge } from "./png";
