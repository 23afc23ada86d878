import type { Contract } from "@/contract";

/** What a page asked for while its own scripts were still on their way, kept where the page's script and the application both find it. */
type Ahead = { readonly path: string; readonly body: string; readonly answer: Promise<Response> };

/**
 * A script for a page that is sure to ask something first: it asks at once, beside the loading of the application, which then takes
 * the answer over instead of asking again. Nothing in it can end the element it stands in.
 */
export function askAhead<Sent, Given, Output>({ name }: Contract<Sent, Given, Output>, input: Sent): string {
  const quoted = (text: string) => JSON.stringify(text).replaceAll("<", "\\u003c");
  const path = quoted(`/api/do/${name}`);
  const body = quoted(JSON.stringify(input));
  const how = `{method:"POST",headers:{"content-type":"application/json"},body:${body}}`;
  // A failure is told to whoever takes the answer, and to nobody else.
  return `laneAhead={path:${path},body:${body},answer:fetch(${path},${how})};laneAhead.answer.catch(()=>{})`;
}

/** The answer to a question that was asked ahead; once, and only to the very same question. */
export function askedAhead(path: string, body: string): Promise<Response> | undefined {
  const page = globalThis as { laneAhead?: Ahead | undefined };
  const ahead = page.laneAhead;
  if (ahead?.path !== path || ahead.body !== body) return undefined;
  page.laneAhead = undefined;
  return ahead.answer;
}
