export { embeddedFonts } from "./fonts";
export { pageName } from "./page";
export { type PictureOptions, pictureOf } from "./picture";
export { PictureTooLarge } from "./png";
