import type { Need } from "./scenario";

/**
 * What a step needs, as the standard's expressions say it: `bpsim:getResource('clerk', 2)`, several tied by `and`, and
 * `bpsim:orResource(…)` or `or` between those of which one will do. Names of roles (`getResourceByRoles`) stand for whoever has them.
 * Source: BPSim 1.0, 6.3 "Resource parameters", from memory.
 * @returns undefined where it is none of these
 */
export function readNeed(expression: string): Need | undefined {
  const words = expression.replace(/bpsim:/g, "").trim();
  const calls = [
    ...words.matchAll(
      /getResource(ByRoles?|sByRoles?)?\s*\(\s*((?:'[^']*'|"[^"]*"|\s|,)+?)\s*(?:,\s*(\d+(?:\.\d+)?))?\s*\)/gi,
    ),
  ];
  if (calls.length === 0) {
    // A bare name is that of a resource.
    return /^[\p{L}_][\p{L}\p{N}_.-]*$/u.test(words) ? [{ oneOf: [words], count: 1 }] : undefined;
  }
  const needs = calls.map(([, , names = "", count]) => ({
    oneOf: [...names.matchAll(/'([^']*)'|"([^"]*)"/g)].map(([, single, double]) => single ?? double ?? ""),
    count: Math.max(1, Math.round(Number(count ?? 1))),
  }));
  const isEither = /orResource|\bor\b|\|/i.test(words) && !/\band\b/i.test(words);
  if (isEither && needs.length > 1)
    return [{ oneOf: needs.flatMap(({ oneOf }) => oneOf), count: needs[0]?.count ?? 1 }];
  return needs;
}
