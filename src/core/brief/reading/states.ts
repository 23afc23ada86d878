import { isRecurring } from "../times";
import { articles, capitalised, named, pastOf, tidied, uncapitalised } from "../wording";
import { clausesOf } from "./clauses";

const coming = /^(?:the\s+)?(receipt|arrival|submission|receiving|getting)\s+(?:of\s+)?(.+)$/i;
const came: { readonly [word: string]: string } = { arrival: "arrived", submission: "submitted" };

/** What "receipt of the invoice" tells has come, and how: the invoice, received. */
export function arrivalIn(words: string): { readonly what: string; readonly how: string } | undefined {
  const [, how = "", what] = coming.exec(tidied(words)) ?? [];
  return what === undefined ? undefined : { what, how: came[how.toLowerCase()] ?? "received" };
}

/** What has happened, as a state: "a household applies for a connection" is "Household applied for connection". */
export function stateName(words: string): string {
  if (isRecurring(words) && !/\b(?:when|as soon as)\b/i.test(words)) return capitalised(tidied(words));
  const arrival = arrivalIn(words);
  if (arrival) return named(`${arrival.what.replace(articles, "")} ${arrival.how}`);
  const several = severalIn(tidied(words));
  if (several) return several;
  const text = tidied(words)
    .replace(/^(?:when(?:ever)?|once|as soon as|if|after|until)\s+/i, "")
    .replace(articles, "");
  // With its article a noun is taken for one.
  const lead = /^(?:he|she|it|they|nobody|somebody|nothing|everybody|no|all|both|some)\b/i.test(text) ? "" : "the ";
  const found = clausesOf(`${lead}${text}`)[0]?.verb;
  if (!found || found.from < lead.length) return named(text);
  const back = (span: { from: number; to: number }) => ({ from: span.from - lead.length, to: span.to - lead.length });
  const verb = { ...found, ...back(found), main: back(found.main) };
  const [before, behind] = [text.slice(0, verb.main.from), text.slice(verb.main.to)];
  if (/^(?:is|are|was|were|has|have|gets?)$/i.test(text.slice(verb.main.from, verb.main.to)))
    return named(`${before}${behind.replace(/^\s*(?:been|then)\b/i, "")}`);
  if (verb.isPassive || verb.from < verb.main.from) {
    const helper = /\b(?:is|are|was|were|has been|have been|has|have|gets?)\s+(?:then\s+|also\s+)?$/i;
    return named(`${before.replace(helper, "")} ${text.slice(verb.main.from)}`);
  }
  const done = text.slice(verb.main.from, verb.main.to);
  return named(/ed$/i.test(done) ? text : `${before}${pastOf(done)}${behind}`);
}

/** "A household fills in a form and sends it": one state, of all that has happened. */
function severalIn(text: string): string | undefined {
  const [first, ...others] = clausesOf(text).filter(({ verb }) => verb !== undefined);
  if (!first || others.length === 0 || others.some(({ link }) => link !== "and")) return undefined;
  const told = others.map(({ begins, to, sharesSubject, verb }) => {
    if (!sharesSubject || !verb || verb.isPassive || verb.isState)
      return uncapitalised(stateName(text.slice(begins, to)));
    return uncapitalised(named(`${pastOf(text.slice(verb.main.from, verb.main.to))}${text.slice(verb.main.to, to)}`));
  });
  return [stateName(text.slice(0, first.to)), ...told].join(" and ");
}

/**
 * A decision as a question: "whether the application is complete" is "Application complete?", and of "the form is missing or the plan
 * is old" both are asked: "Form missing or plan old?"
 */
export function question(words: string): string {
  const clauses = clausesOf(words).filter(({ verb }) => verb !== undefined);
  const isTied = clauses.length > 1 && clauses.slice(1).every(({ link }) => link === "and" || link === "or");
  if (!isTied) return questionOfOne(words);
  const last = clauses.length - 1;
  const asked = clauses.map(({ begins, to, link }, at) => {
    const one = questionOfOne(words.slice(at === 0 ? 0 : begins, to)).slice(0, -1);
    return at === 0 ? one : `${at === last ? ` ${link}` : ","} ${uncapitalised(one)}`;
  });
  return `${asked.join("")}?`;
}

function questionOfOne(words: string): string {
  const text = tidied(words)
    .replace(/^(?:whether|if|unless|when|where|in case|depending on)\s+/i, "")
    .replace(/^there (?:is|are)\s+|^it (?:is|was) (?=(?:the|an?)\b)|^to\s+/i, "");
  // "He finds defects" asks whether defects are found.
  const doing = /^(?:he|she|they|it)\s+(?=\p{L}+s?\s+\p{L})/iu.test(text) ? clausesOf(text)[0] : undefined;
  if (doing?.verb && !doing.verb.isState && !doing.verb.isPassive && !doing.verb.isNegated) {
    const object = text.slice(doing.verb.main.to).trim();
    if (/^(?:an?|the|any|some)?\s*(?:\p{L}+\s){0,4}\p{L}+$/iu.test(object))
      return `${named(`${object} ${pastOf(text.slice(doing.verb.main.from, doing.verb.main.to))}`)}?`;
  }
  const copula = /^(?<what>.+?)\s+(?:is|are|was|were|has been|have been)\s+(?<how>.+)$/i.exec(text)?.groups;
  const bare = copula ? `${copula.what} ${copula.how}` : text;
  return `${named(uncapitalised(bare))}?`;
}
