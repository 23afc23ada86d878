export { embeddedFonts } from "./fonts";
export { type PictureOptions, pageName, pictureOf } from "./picture";
export { PictureTooLarge } from "./png";
