import { Cursor, nameStart, type UsedName } from "./cursor";
import { type Expression, FeelSyntaxError, type Iteration, type UnaryTest, type UnaryTests } from "./syntax";

/** So deep expressions may be in each other, and so many operations one after the other: less than the platform's own stack holds. */
const deepest = 400;
const mostOperations = 1_500;

/**
 * Reads an expression of FEEL. Names may have blanks and signs in them where they are known: the longest known name that stands at a place
 * is meant (DMN 1.5, 10.3.1.2 and 10.3.1.3; from memory).
 * @param known names of data, functions and fields, besides those the expression itself makes
 * @throws FeelSyntaxError where it is none. O(length × known names).
 */
export function parseExpression(text: string, known: Iterable<string> = []): Expression {
  const parser = new Parser(text, known);
  const expression = parser.expression();
  parser.end();
  return expression;
}

/** Reads the tests of a cell of a decision table. */
export function parseUnaryTests(text: string, known: Iterable<string> = []): UnaryTests {
  const parser = new Parser(text, known);
  const tests = parser.unaryTests();
  parser.end();
  return tests;
}

/**
 * The names an expression (or the tests of a cell) uses, in the order they stand in.
 * @param guesses whether words in a row that are no known name are taken for one
 * @throws FeelSyntaxError where it is none. O(length × known names).
 */
export function namesUsed(
  text: string,
  known: Iterable<string>,
  what: "expression" | "tests" = "expression",
  guesses = false,
): UsedName[] {
  const parser = new Parser(text, known, guesses);
  if (what === "tests") parser.unaryTests();
  else parser.expression();
  parser.end();
  return parser.names();
}

class Parser extends Cursor {
  #depth = 0;
  #operations = 0;
  /** The end of a range is read: there "[" closes it, and is no filter. */
  #isRangeEnd = false;

  #nested<Result>(read: () => Result): Result {
    if (++this.#depth > deepest) this.fail("the expression is nested too deep");
    const result = read();
    this.#depth--;
    return result;
  }
  #operation<Made extends Expression>(made: Made): Made {
    if (++this.#operations > mostOperations) this.fail("the expression has too many operations");
    return made;
  }
  /** An expression of its own, inside of brackets. */
  #inside<Result>(read: () => Result): Result {
    const before = this.#isRangeEnd;
    this.#isRangeEnd = false;
    const result = read();
    this.#isRangeEnd = before;
    return result;
  }

  expression(): Expression {
    return this.#nested(() => {
      if (this.word("if")) return this.#if();
      if (this.word("for")) return this.#for();
      if (this.word("some")) return this.#quantified(false);
      if (this.word("every")) return this.#quantified(true);
      if (this.#isFunctionDefinition()) return this.#function();
      return this.#or();
    });
  }

  #if(): Expression {
    const test = this.expression();
    this.needsWord("then");
    const then = this.expression();
    this.needsWord("else");
    return { kind: "if", test, then, otherwise: this.expression() };
  }

  #iterations(): Iteration[] {
    const over: Iteration[] = [];
    do {
      const name = this.newName("in");
      this.needsWord("in");
      const first = this.expression();
      const to = this.sign("..") ? this.expression() : undefined;
      this.learn(name);
      over.push({ name, in: first, to });
    } while (this.sign(","));
    return over;
  }
  #for(): Expression {
    const over = this.#iterations();
    this.needsWord("return");
    this.learn("partial");
    return { kind: "for", over, result: this.expression() };
  }
  #quantified(isEvery: boolean): Expression {
    const over = this.#iterations();
    this.needsWord("satisfies");
    return { kind: "quantified", isEvery, over, test: this.expression() };
  }

  #isFunctionDefinition(): boolean {
    this.space();
    return /^function\s*\(/.test(this.text.slice(this.at, this.at + 200));
  }
  #function(): Expression {
    this.needsWord("function");
    this.needs("(");
    const parameters: string[] = [];
    if (!this.sign(")")) {
      do {
        const name = this.newName("", ",", ")", ":");
        if (this.sign(":")) this.#type();
        this.learn(name);
        parameters.push(name);
      } while (this.sign(","));
      this.needs(")");
    }
    return { kind: "function", parameters, body: this.expression() };
  }

  #or(): Expression {
    let left = this.#and();
    while (this.word("or")) left = this.#operation({ kind: "binary", operator: "or", left, right: this.#and() });
    return left;
  }
  #and(): Expression {
    let left = this.#comparison();
    while (this.word("and"))
      left = this.#operation({ kind: "binary", operator: "and", left, right: this.#comparison() });
    return left;
  }
  #comparison(): Expression {
    let left = this.#sum();
    for (;;) {
      const operator = (["!=", "<=", ">=", "=", "<", ">"] as const).find((sign) => this.sign(sign));
      if (operator) left = this.#operation({ kind: "binary", operator, left, right: this.#sum() });
      else if (this.word("between")) {
        const from = this.#sum();
        this.needsWord("and");
        left = { kind: "between", of: left, from, to: this.#sum() };
      } else if (this.word("instance of")) left = { kind: "instance", of: left, type: this.#type() };
      else if (this.word("in")) left = { kind: "in", of: left, tests: this.#inTests() };
      else return left;
    }
  }
  #inTests(): UnaryTest[] {
    this.space();
    const before = this.at;
    // Several tests in parentheses; one value or range in them is read as such.
    if (this.sign("(")) {
      try {
        const tests = this.#tests();
        if (this.sign(")") && !this.peek("..") && tests.length > 0) return tests;
      } catch (error) {
        if (!(error instanceof FeelSyntaxError)) throw error;
      }
      this.back(before);
    }
    return [this.#test()];
  }

  #type(): string {
    this.space();
    const start = this.at;
    let open = 0;
    while (this.at < this.text.length) {
      const sign = this.text[this.at] as string;
      if (sign === "<") open++;
      else if (sign === ">") open--;
      else if (open === 0 && /[),\]}=+*/]/.test(sign)) break;
      else if (
        open === 0 &&
        /\s/.test(sign) &&
        /^\s+(?:and(?!\s+time)|or|then|else|return|satisfies)\b/.test(this.text.slice(this.at))
      )
        break;
      this.at++;
    }
    const type = this.text.slice(start, this.at).trim();
    if (type === "") this.fail("a type is missing");
    return type;
  }

  #sum(): Expression {
    let left = this.#product();
    for (;;) {
      const operator = (["+", "-"] as const).find((sign) => this.sign(sign));
      if (!operator) return left;
      left = this.#operation({ kind: "binary", operator, left, right: this.#product() });
    }
  }
  #product(): Expression {
    let left = this.#power();
    for (;;) {
      if (this.peek("**")) return left;
      const operator = (["*", "/"] as const).find((sign) => this.sign(sign));
      if (!operator) return left;
      left = this.#operation({ kind: "binary", operator, left, right: this.#power() });
    }
  }
  #power(): Expression {
    let left = this.#unary();
    while (this.sign("**")) left = this.#operation({ kind: "binary", operator: "**", left, right: this.#unary() });
    return left;
  }
  #unary(): Expression {
    return this.#nested(() => (this.sign("-") ? { kind: "negate", of: this.#unary() } : this.#postfix()));
  }

  #postfix(): Expression {
    let of = this.#primary();
    for (;;) {
      if (this.peek("..")) return of;
      if (this.sign(".")) of = this.#operation({ kind: "path", of, name: this.name(true) });
      else if (!this.#isRangeEnd && this.peek("[")) {
        this.needs("[");
        this.learn("item");
        const by = this.expression();
        this.needs("]");
        of = this.#operation({ kind: "filter", of, by });
      } else if (this.sign("(")) {
        const callee = of;
        of = this.#inside(() => this.#call(callee));
      } else return of;
    }
  }
  #call(of: Expression): Expression {
    const args: Expression[] = [];
    const names: string[] = [];
    if (this.sign(")")) return { kind: "call", of, args, names: undefined };
    do {
      this.space();
      const before = this.at;
      const name = this.#argumentName();
      if (name === undefined) this.at = before;
      else names.push(name);
      args.push(this.expression());
    } while (this.sign(","));
    this.needs(")");
    if (names.length > 0 && names.length < args.length) this.fail("either all arguments have a name or none");
    return { kind: "call", of, args, names: names.length > 0 ? names : undefined };
  }
  #argumentName(): string | undefined {
    const [, name] =
      /^([\p{L}_?][\p{L}\p{N}\p{M}_?' ]*?)\s*:(?!:)/u.exec(this.text.slice(this.at, this.at + 200)) ?? [];
    if (name === undefined) return undefined;
    this.at += name.length;
    this.needs(":");
    return name.replace(/\s+/g, " ");
  }

  #primary(): Expression {
    this.space();
    const sign = this.text[this.at] ?? "";
    if (sign === "") this.fail("something is missing at the end");
    if (/\d/.test(sign) || (sign === "." && /\d/.test(this.text[this.at + 1] ?? ""))) return this.#number();
    if (sign === '"') return { kind: "text", value: this.string() };
    if (sign === "@" && this.text[this.at + 1] === '"') {
      this.at++;
      return { kind: "at", value: this.string() };
    }
    if (sign === "[" || sign === "]") return this.#inside(() => this.#listOrRange());
    if (sign === "(") return this.#inside(() => this.#groupOrRange());
    if (sign === "{") return this.#inside(() => this.#context());
    if (!nameStart.test(sign)) this.fail(`"${sign}" is not understood here`);
    for (const [word, value] of [
      ["true", true],
      ["false", false],
      ["null", null],
    ] as const)
      if (this.word(word)) return { kind: "literal", value };
    return { kind: "name", name: this.name() };
  }

  #number(): Expression {
    const [found = ""] = /^(?:\d+(?:\.(?!\.)\d+)?|\.\d+)(?:[eE][+-]?\d+)?/.exec(this.text.slice(this.at)) ?? [];
    this.at += found.length;
    if (nameStart.test(this.text[this.at] ?? "")) this.fail("a name does not begin with a digit");
    return { kind: "number", text: found };
  }

  /** "[1, 2]", "[1..2]", "]1..2[". */
  #listOrRange(): Expression {
    const opens = this.text[this.at++] as string;
    if (opens === "[" && this.sign("]")) return { kind: "list", items: [] };
    const first = this.expression();
    if (this.sign("..")) return this.#rangeFrom(first, opens === "[");
    if (opens === "]") this.fail('".." is missing');
    const items = [first];
    while (this.sign(",")) items.push(this.expression());
    this.needs("]");
    return { kind: "list", items };
  }
  /** "(a)", "(1..2]", "(< 5)". */
  #groupOrRange(): Expression {
    this.needs("(");
    const operator = (["<=", ">=", "<", ">"] as const).find((sign) => this.sign(sign));
    if (operator) {
      const to = this.#sum();
      this.needs(")");
      const isUp = operator.startsWith("<");
      const isIn = operator.endsWith("=");
      return {
        kind: "range",
        start: isUp ? undefined : to,
        end: isUp ? to : undefined,
        hasStart: !isUp && isIn,
        hasEnd: isUp && isIn,
      };
    }
    const inside = this.expression();
    if (this.sign("..")) return this.#rangeFrom(inside, false);
    this.needs(")");
    return inside;
  }
  #rangeFrom(start: Expression, hasStart: boolean): Expression {
    this.#isRangeEnd = true;
    const end = this.#sum();
    this.#isRangeEnd = false;
    if (this.sign("]")) return { kind: "range", start, end, hasStart, hasEnd: true };
    if (this.sign(")") || this.sign("[")) return { kind: "range", start, end, hasStart, hasEnd: false };
    return this.fail("a range does not end");
  }

  #context(): Expression {
    this.needs("{");
    const entries: { key: string; value: Expression }[] = [];
    const known = this.known.length;
    while (!this.sign("}")) {
      if (entries.length > 0) this.needs(",");
      this.space();
      const key = this.text[this.at] === '"' ? this.string() : this.newName("", ":");
      this.needs(":");
      entries.push({ key, value: this.expression() });
      this.learn(key);
    }
    // Its own names are known inside of it, and to paths behind it.
    if (this.known.length > known + 500) this.fail("there are too many entries");
    return { kind: "context", entries };
  }

  unaryTests(): UnaryTests {
    this.space();
    if (/^-\s*$/.test(this.text.slice(this.at))) {
      this.at = this.text.length;
      return { kind: "any" };
    }
    const before = this.at;
    if (this.word("not") && this.sign("(")) {
      const tests = this.#tests();
      if (this.sign(")")) {
        this.space();
        if (this.at === this.text.length) return { kind: "none", tests };
      }
    }
    this.back(before);
    return { kind: "some", tests: this.#tests() };
  }
  #tests(): UnaryTest[] {
    const tests = [this.#test()];
    while (this.sign(",")) tests.push(this.#test());
    return tests;
  }
  #test(): UnaryTest {
    const operator = (["!=", "<=", ">=", "=", "<", ">"] as const).find((sign) => this.sign(sign));
    return operator ? { kind: "compare", operator, to: this.#sum() } : { kind: "is", value: this.expression() };
  }
}
