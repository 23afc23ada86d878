/**
 * Chance by counters: the numbers drawn for a purpose, a case and a visit depend on these alone, and on the seed. So two models that are
 * compared meet the same cases (common random numbers), whatever else happens in them, and nothing has to be kept to go on.
 *
 * Philox 2x32 with ten rounds. Source: J. K. Salmon, M. A. Moraes, R. O. Dror, D. E. Shaw, "Parallel random numbers: as easy as 1, 2, 3"
 * (SC 2011). Integer arithmetic of 32 bits only, so the bits are the same on every machine.
 */
const multiplierHigh = 0xd256;
const multiplierLow = 0xd193;
const multiplier = 0xd256d193;
const weyl = 0x9e3779b9;

/** A stream of numbers from 0 to below 1 for one purpose. It is set to a case and a visit before it is drawn from. */
export class Stream {
  readonly #key: number;
  #case = 0;
  #draw = 0;
  /** The second half of a block that was worked out and not yet used. */
  #spare = -1;

  constructor(seed: number, purpose: string) {
    this.#key = hashed(purpose, seed);
  }

  /** What is drawn next belongs to this case, and to its n-th visit; a visit may draw 4,096 times. */
  at(number: number, visit: number): this {
    this.#case = number >>> 0;
    this.#draw = Math.imul(visit, 4096) >>> 0;
    this.#spare = -1;
    return this;
  }

  /** A number from 0 to below 1, in steps of 2⁻³². */
  next(): number {
    if (this.#spare >= 0) {
      const spare = this.#spare;
      this.#spare = -1;
      return spare / 4_294_967_296;
    }
    const block = philox(this.#case, this.#draw, this.#key);
    this.#draw = (this.#draw + 1) >>> 0;
    this.#spare = block[1];
    return block[0] / 4_294_967_296;
  }

  /** A number above 0 and below 1, for what has no value at the ends. */
  inside(): number {
    return this.next() + 1 / 8_589_934_592;
  }
}

const pair: [number, number] = [0, 0];

/**
 * One block: 64 bits from a counter of 64 and a key of 32. The pair that is returned is the same one each time.
 * All in integers of 32 bits, which a machine does ten times as fast as sums that do not fit into them.
 */
export function philox(counter: number, counterAbove: number, key: number): readonly [number, number] {
  let left = counter | 0;
  let right = counterAbove | 0;
  let turning = key | 0;
  for (let round = 0; round < 10; round++) {
    const a = left >>> 16;
    const b = left & 0xffff;
    // The upper half of the product by halves of 16 bits; no sum needs more than 32.
    const middle = (Math.imul(a, multiplierLow) + (Math.imul(b, multiplierLow) >>> 16)) | 0;
    const crossed = (Math.imul(b, multiplierHigh) + (middle & 0xffff)) | 0;
    const upper = (Math.imul(a, multiplierHigh) + (middle >>> 16) + (crossed >>> 16)) | 0;
    const lower = Math.imul(left, multiplier);
    left = upper ^ turning ^ right;
    right = lower;
    turning = (turning + weyl) | 0;
  }
  pair[0] = left >>> 0;
  pair[1] = right >>> 0;
  return pair;
}

/** 32 bits of a text and a seed (FNV-1a, with the finish of MurmurHash 3; both in the public domain). */
function hashed(text: string, seed: number): number {
  let hash = 0x811c9dc5;
  for (const word of [`${seed}`, text])
    for (let at = 0; at < word.length; at++) hash = Math.imul(hash ^ word.charCodeAt(at), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
