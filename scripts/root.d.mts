/** The project's folder. */
export const root: string;
/** When anything in a folder, or a file, was last written, in milliseconds. */
export function newest(path: string): number;
