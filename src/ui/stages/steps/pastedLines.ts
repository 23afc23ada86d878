/** Whether pasted text is several lines or cells; a single value may end with a line break, as spreadsheets copy it. */
export const hasLines = (pasted: string): boolean => /[\r\n\t]/.test(pasted.replace(/[\r\n]+$/, ""));
