import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { behaviourOf } from "../../check";
import { modelOf } from "../../live/testing/models";
import { discover, type EventLog, holdAgainst, logOf, type ProcessTree, treeFile } from "..";

const words = (...traces: string[]) => traces.map((trace) => trace.split("").filter((name) => name !== "-"));
/** A tree in one line: → one after the other, × one of them, + all of them, ↺ again and again. */
const said = (tree: ProcessTree): string =>
  tree.kind === "step"
    ? tree.name
    : tree.kind === "nothing"
      ? "τ"
      : `${{ sequence: "→", choice: "×", parallel: "+", loop: "↺" }[tree.kind]}(${tree.parts.map(said).join(",")})`;
const logFor = (traces: readonly (readonly string[])[]): EventLog =>
  logOf(
    traces.map((names, at) => ({
      case: String(at),
      events: names.map((activity) => ({ activity, at: undefined, lifecycle: "", role: "", who: "" })),
    })),
  );

describe("a discovered process", () => {
  test.each<[traces: string[], tree: string]>([
    [["abc"], "→(a,b,c)"],
    [["a", "b"], "×(a,b)"],
    [["ab", "ba"], "+(a,b)"],
    [["ab", "a"], "→(a,×(b,τ))"],
    [["a", "aa", "aaa"], "↺(a,τ)"],
    [["ab", "abcab"], "↺(→(a,b),c)"],
    [["-"], "τ"],
    // The running example of W. van der Aalst, "Process Mining" (2011), L1 = [⟨a,b,c,d⟩³, ⟨a,c,b,d⟩², ⟨a,e,d⟩]; from memory.
    [["abcd", "abcd", "abcd", "acbd", "acbd", "aed"], "→(a,×(+(b,c),e),d)"],
    // The same, L2: [⟨a,b,c,d⟩³, ⟨a,c,b,d⟩⁴, ⟨a,b,c,e,f,b,c,d⟩², ⟨a,b,c,e,f,c,b,d⟩, ⟨a,c,b,e,f,b,c,d⟩², ⟨a,c,b,e,f,b,c,e,f,c,b,d⟩].
    [["abcd", "acbd", "abcefbcd", "abcefcbd", "acbefbcd", "acbefbcefcbd"], "→(a,↺(+(b,c),→(e,f)),d)"],
  ])("of %o is %s", (traces, tree) => {
    expect(said(discover(words(...traces)))).toBe(tree);
  });

  test("does not look at what is too seldom, where a threshold says so", () => {
    const traces = words(...Array(50).fill("abc"), "acb");
    expect(said(discover(traces))).toBe("→(a,+(b,c))");
    const quiet = words(...Array(50).fill("abcd"), "adcb");
    expect(said(discover(quiet, 0.2))).toBe("→(a,b,c,d)");
  });

  test("is sound, and every trace fits it, whatever the log is", () => {
    const trace = fc.array(fc.constantFrom("a", "b", "c", "d", "e"), { maxLength: 7 });
    fc.assert(
      fc.property(fc.array(trace, { minLength: 1, maxLength: 8 }), (traces) => {
        const model = modelOf(treeFile(discover(traces), "Discovered"));
        expect(behaviourOf(model).map(({ sound }) => sound)).toEqual([true]);
        const held = holdAgainst(model, logFor(traces));
        expect(held.fitting).toBe(traces.length);
      }),
      { numRuns: 150 },
    );
  });

  test("is sound with a threshold too, and has names of any kind", () => {
    const name = fc.string({ minLength: 1, maxLength: 6 }).filter((text) => !/[\p{Cc}\p{Cs}\p{Cn}]/u.test(text));
    fc.assert(
      fc.property(fc.array(fc.array(name, { maxLength: 5 }), { minLength: 1, maxLength: 6 }), (traces) => {
        const model = modelOf(treeFile(discover(traces, 0.3), "Discovered"));
        for (const { sound } of behaviourOf(model)) expect(sound).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
