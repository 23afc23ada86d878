/** What the server says of Home. */
export interface HomeArea {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}
export interface HomeProcess {
  readonly id: string;
  readonly name: string;
  readonly area: string;
  readonly brief: { readonly sentences: number; readonly accounted: number } | null;
}
export interface HomeVersion {
  readonly id: string;
  readonly process: string;
  readonly kind: "as-is" | "to-be";
  readonly name: string;
  readonly source: string | null;
  readonly changedAt: string;
  readonly revision: number;
  readonly handedOff: number;
  /** Why it cannot be opened; null where it can. */
  readonly damaged: string | null;
  readonly summary: {
    readonly steps: number;
    readonly shapes: number;
    readonly errors: number;
    readonly warnings: number;
    readonly advice: number;
    readonly walks: number;
    readonly failingWalks: number;
  };
}
export interface HomeData {
  readonly areas: readonly HomeArea[];
  readonly processes: readonly HomeProcess[];
  readonly versions: readonly HomeVersion[];
}
