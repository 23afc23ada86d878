/** The largest power of ten a number can have: beyond it there is none, and below it all is 0 (IEEE 754-2008, decimal128). */
const mostPower = 6_144;
/** Digits a result has at most: those of the 34-digit format the standard names (IEEE 754-2008, decimal128). */
const precision = 34;
const ten = (power: number): bigint => 10n ** BigInt(power);
const absolute = (value: bigint) => (value < 0n ? -value : value);

export type Rounding = "half even" | "half up" | "half down" | "up" | "down" | "floor" | "ceiling";

/**
 * A decimal number: whole digits over a power of ten, so that 0.1 + 0.2 is 0.3. Results have at most 34 digits, the last rounded half to
 * even. Source: DMN 1.5, 10.3.2.3.1 (numbers), from memory.
 */
export class Decimal {
  private constructor(
    /** The digits as a whole number. */
    readonly digits: bigint,
    /** Digits behind the point; below 0 for zeros before it. */
    readonly scale: number,
  ) {}

  /** From digits and the places behind the point; more than 34 digits are rounded. */
  static from(digits: bigint, scale: number): Decimal {
    let [value, places] = [digits, scale];
    const length = absolute(value).toString().length;
    if (length > precision) {
      const cut = length - precision;
      value = rounded(value, cut, "half even");
      places -= cut;
    }
    const power = absolute(value).toString().length - 1 - places;
    if (value === 0n || power < -mostPower) return new Decimal(0n, 0);
    if (power > mostPower) throw new RangeError("a number is too large");
    while (value % 10n === 0n) {
      value /= 10n;
      places--;
    }
    return new Decimal(value, places);
  }

  /** Reads a number as it is written; undefined where it is none. */
  static read(text: string): Decimal | undefined {
    const [, sign, whole = "", part = "", power = "0"] =
      /^([+-]?)(\d*)(?:\.(\d+))?(?:[eE]([+-]?\d{1,4}))?$/.exec(text.trim()) ?? [];
    if (whole === "" && part === "") return undefined;
    const digits = BigInt(`${whole}${part}` || "0");
    if (digits !== 0n && whole.length + Number(power) > mostPower) return undefined;
    return Decimal.from(sign === "-" ? -digits : digits, part.length - Number(power));
  }

  /** Of a number of the platform the shortest decimal that is it. */
  static of(value: number): Decimal {
    return Decimal.read(String(value)) ?? Decimal.from(0n, 0);
  }

  #aligned(other: Decimal): readonly [one: bigint, other: bigint, scale: number] {
    const scale = Math.max(this.scale, other.scale);
    return [this.digits * ten(scale - this.scale), other.digits * ten(scale - other.scale), scale];
  }

  plus(other: Decimal): Decimal {
    const [a, b, scale] = this.#aligned(other);
    return Decimal.from(a + b, scale);
  }
  minus(other: Decimal): Decimal {
    return this.plus(other.negated());
  }
  times(other: Decimal): Decimal {
    return Decimal.from(this.digits * other.digits, this.scale + other.scale);
  }
  /** Undefined by 0. */
  over(other: Decimal): Decimal | undefined {
    if (other.digits === 0n) return undefined;
    const more = precision + absolute(other.digits).toString().length + 1;
    const quotient = (this.digits * ten(more)) / other.digits;
    return Decimal.from(quotient, this.scale + more - other.scale);
  }
  /** To a whole power exactly, within 34 digits; to another as the platform can. Undefined where that is no number. */
  power(other: Decimal): Decimal | undefined {
    const exponent = Number(other);
    if (Number.isInteger(exponent) && Math.abs(exponent) <= 10_000) {
      let [result, base, left] = [Decimal.from(1n, 0), this as Decimal, Math.abs(exponent)];
      for (; left > 0; left >>= 1) {
        if (left & 1) result = result.times(base);
        base = base.times(base);
      }
      return exponent < 0 ? Decimal.from(1n, 0).over(result) : result;
    }
    const value = Number(this) ** exponent;
    return Number.isFinite(value) ? Decimal.of(value) : undefined;
  }
  negated(): Decimal {
    return Decimal.from(-this.digits, this.scale);
  }
  abs(): Decimal {
    return this.digits < 0n ? this.negated() : this;
  }
  compare(other: Decimal): number {
    const [a, b] = this.#aligned(other);
    return a < b ? -1 : a > b ? 1 : 0;
  }
  equals(other: Decimal): boolean {
    return this.digits === other.digits && this.scale === other.scale;
  }
  /** To so many places behind the point. */
  round(places: number, how: Rounding): Decimal {
    if (this.scale <= places) return this;
    return Decimal.from(rounded(this.digits, this.scale - places, how), places);
  }
  /** What is left when the other is taken away a whole number of times, with the sign of the other. Undefined by 0. */
  modulo(other: Decimal): Decimal | undefined {
    const times = this.over(other)?.round(0, "floor");
    return times && this.minus(other.times(times));
  }
  get isWhole(): boolean {
    return this.scale <= 0;
  }
  valueOf(): number {
    return Number(this.toString());
  }
  toString(): string {
    const text = absolute(this.digits).toString();
    const sign = this.digits < 0n ? "-" : "";
    if (this.scale <= 0)
      return this.scale < -400 ? `${sign}${text}e${-this.scale}` : `${sign}${text}${"0".repeat(-this.scale)}`;
    if (this.scale > 400) return `${sign}${text}e-${this.scale}`;
    const whole = text.padStart(this.scale + 1, "0");
    return `${sign}${whole.slice(0, -this.scale)}.${whole.slice(-this.scale)}`;
  }
}

/** Takes so many digits off the end. */
function rounded(value: bigint, cut: number, how: Rounding): bigint {
  const unit = ten(cut);
  const [kept, rest] = [value / unit, absolute(value % unit)];
  const away = value < 0n ? -1n : 1n;
  if (rest === 0n) return kept;
  const half = rest * 2n < unit ? -1 : rest * 2n > unit ? 1 : 0;
  const goesUp = {
    "half even": half > 0 || (half === 0 && kept % 2n !== 0n),
    "half up": half >= 0,
    "half down": half > 0,
    up: true,
    down: false,
    floor: value < 0n,
    ceiling: value > 0n,
  }[how];
  return goesUp ? kept + away : kept;
}
