/** What Home and the journey show of a version. */
export interface Summary {
  /** Flow nodes: what the flow passes. */
  readonly steps: number;
  /** Everything drawn but the connections. */
  readonly shapes: number;
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
  /** Kept walks, and those of them that no longer go as expected. */
  readonly walks: number;
  readonly failingWalks: number;
  /** How much is assumed for a forecast; absent where it was not looked at yet. */
  readonly assumed?: "nothing" | "something" | "enough";
}
