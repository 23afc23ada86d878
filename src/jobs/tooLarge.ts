import { PictureTooLarge } from "./pictures";

export type FileMade = { readonly bytes: Uint8Array } | { readonly tooLarge: string };

/** A file, or words where a picture in it would be too large to paint. */
export async function orTooLarge(made: Promise<Uint8Array>): Promise<FileMade> {
  try {
    return { bytes: await made };
  } catch (error) {
    if (error instanceof PictureTooLarge) return { tooLarge: error.message };
    throw error;
  }
}
