import type { Compiled } from "./compiled";
import { Place } from "./place";

/** So many are kept of each scope. */
const most = 256;

/** Scopes of cases that are over, to be used again by the next: for whoever plays thousands of cases and looks back at none. */
export class SparePlaces {
  readonly #of = new Map<Compiled, Place[]>();

  take(scope: Compiled, key: string, outer: Place | undefined, node: number): Place {
    return this.#of.get(scope)?.pop()?.anew(key, outer, node) ?? new Place(key, scope, outer, node);
  }

  /** A place that nobody looks at any more. */
  give(place: Place): void {
    // What was picked in an ad-hoc scope may be remembered by the place.
    if (place.scope.isAdHoc) return;
    const known = this.#of.get(place.scope);
    if (!known) this.#of.set(place.scope, [place]);
    else if (known.length < most) known.push(place);
  }
}
