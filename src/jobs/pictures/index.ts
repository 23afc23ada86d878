export { embeddedFonts } from "./fonts";
export { type PictureOptions, pictureOf, sceneFile } from "./picture";
export { PictureTooLarge } from "./png";
