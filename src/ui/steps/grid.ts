/** Widths of the columns: number, step, by, uses, needs, gives, guidance. */
export const rowGrid = "52px minmax(250px, 1.5fr) 160px 150px 170px 170px minmax(150px, 1fr)";
export const rowHeight = 28;
