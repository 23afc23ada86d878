import { cookies, headers } from "next/headers";
import { type Language, languageCookie, languageFor } from "@/ui/messages/languages";
import { wordsIn } from "@/ui/messages/wordsIn";

/** The language in which a page is asked for. */
export const languageAsked = async (): Promise<Language> =>
  languageFor((await cookies()).get(languageCookie)?.value, (await headers()).get("accept-language"));

/** What a page is called in the browser's row of pages, in the language it is asked for. */
export const titled = (title: (words: ReturnType<typeof wordsIn>) => string) => async () => ({
  title: title(wordsIn(await languageAsked())),
});
