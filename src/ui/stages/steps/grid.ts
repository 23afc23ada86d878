/** Widths of the columns: number, step, by, uses, needs, gives, guidance, and where they are shown time and cost. */
const usual = "52px minmax(250px, 1.5fr) 160px 150px 170px 170px";
export const rowGridOf = (estimates: boolean) =>
  estimates ? `${usual} minmax(90px, 1fr) 116px 84px` : `${usual} minmax(150px, 1fr)`;
export const rowHeight = 28;
