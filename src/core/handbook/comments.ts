import { type Block, line } from "../booklet";
import { type Said, say } from "../messages";

/** An open thread, as a handbook tells it. */
export interface ToldThread {
  readonly about: string;
  readonly said: readonly { readonly name: string; readonly at: string; readonly text: string }[];
}

/** What is still talked about, as a part of a handbook; nothing where nothing is open. */
export function commentBlocks(threads: readonly ToldThread[], words: (said: Said) => string): Block[] {
  if (threads.length === 0) return [];
  return [
    {
      kind: "table",
      caption: words(say`Threads that are open`),
      columns: [
        { name: words(say`About`), share: 2 },
        { name: words(say`Who, when`), share: 2 },
        { name: words(say`What was said`), share: 5 },
      ],
      rows: threads.flatMap(({ about, said }) =>
        said.map(({ name, at, text }, place) => [
          line(place === 0 ? about : ""),
          line(`${name}, ${at.slice(0, 10)}`),
          line(text),
        ]),
      ),
    },
  ];
}
