/** The languages the interface is there in, each by its own name. */
export const languages = { en: "English", de: "Deutsch" } as const;
export type Language = keyof typeof languages;

/** The cookie in which a browser keeps the language somebody chose. */
export const languageCookie = "lane-language";

const isLanguage = (code: string | undefined): code is Language => code !== undefined && Object.hasOwn(languages, code);

/** The language somebody chose, else the first the browser asks for that there is, else English. */
export function languageFor(chosen: string | undefined, accepted: string | null): Language {
  if (isLanguage(chosen)) return chosen;
  const asked = (accepted ?? "").split(",").map((one) => {
    const [tag = "", ...more] = one.trim().toLowerCase().split(";");
    const weight = more.map((part) => /^\s*q=([\d.]+)$/.exec(part)?.[1]).find((found) => found !== undefined);
    return { code: tag.split("-")[0] ?? "", weight: weight === undefined ? 1 : Number(weight) };
  });
  const best = asked
    .filter(({ code, weight }) => isLanguage(code) && weight > 0)
    .sort((a, b) => b.weight - a.weight)[0];
  return isLanguage(best?.code) ? best.code : "en";
}
