import { hearFeed, listenToFeed } from "@/server";
import { answer, mayStillAsk } from "../answer";

export const dynamic = "force-dynamic";

/** So that whatever stands between knows that the stream is alive. */
const beatEvery = 15_000;

/** GET `?after=`: what happens, and happened since an event, as server-sent events, for as long as somebody listens. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    await listenToFeed();
    // A stream that broke goes on where it was; a new one begins where its page was made.
    const after = request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("after");
    let end = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const write = (text: string) => {
          try {
            controller.enqueue(new TextEncoder().encode(text));
          } catch {
            // Nobody reads any more.
            end();
          }
        };
        const stop = hearFeed(member, after, (id, text) => write(`id: ${id}\ndata: ${text}\n\n`));
        const beat = setInterval(async () => {
          // A session that was ended hears nothing more.
          if (await mayStillAsk(request)) write(":\n\n");
          else close();
        }, beatEvery);
        end = () => {
          clearInterval(beat);
          stop();
        };
        const close = () => {
          end();
          try {
            controller.close();
          } catch {
            // It is closed already.
          }
        };
        request.signal.addEventListener("abort", close);
        write("retry: 1000\n\n");
      },
      cancel: () => end(),
    });
    return new Response(stream, {
      headers: { "content-type": "text/event-stream; charset=utf-8", "x-accel-buffering": "no" },
    });
  });
}
