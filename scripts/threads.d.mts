/** The server's threads as one file, up to date; its path. */
export function threadBundle(): Promise<string>;
