import { UseCaseError } from "../kernel/useCase";

/** Where in a place the developers' file of a model is. */
export interface Spot {
  /** A path from the place's root. */
  readonly path: string;
  /** The branch of a repository; "" in a folder. */
  readonly branch: string;
}

/** What stands at a spot. */
export interface Standing {
  /** Undefined where there is no file. */
  readonly bytes: Uint8Array | undefined;
  /** What tells this state from others: a commit, or a hash of the content. */
  readonly mark: string;
}

export interface Sending {
  readonly bytes: Uint8Array;
  /** The state that was read: if it is another one by now, nothing is written. */
  readonly mark: string;
  readonly message: string;
  readonly author: string;
}

/** A place of developers that models can be sent to. */
export interface Place {
  read(spot: Spot): Promise<Standing>;
  /** Writes all or nothing; gives the new state's mark. */
  write(spot: Spot, sending: Sending): Promise<string>;
}

/** Files above this size are no models. */
export const mostBytes = 64 * 1024 * 1024;

/** Somebody was faster. */
export const moved = () =>
  new UseCaseError("build-moved", "The build copy changed just now. Nothing was written; look at it again.", 409);
