/** The server's threads bundled into one file, up to date; its path. */
export function threadBundle(): Promise<string>;
