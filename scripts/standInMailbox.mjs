/**
 * A mail server that keeps nothing and shows what it is sent: for trying digests with nothing outside. `npm run mailbox`, then
 * `LANE_MAIL=smtp://127.0.0.1:2525 npm start`.
 */
import { pathToFileURL } from "node:url";
import { SMTPServer } from "smtp-server";

/** Starts one; gives its port, and how to stop it. */
export function startMailbox(onMail, port = 2525) {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["STARTTLS", "AUTH"],
    onData(stream, session, done) {
      const pieces = [];
      stream.on("data", (piece) => pieces.push(piece));
      stream.on("end", () => {
        const to = session.envelope.rcptTo.map(({ address }) => address);
        done(onMail({ to, text: Buffer.concat(pieces).toString("utf8") }) ?? null);
      });
    },
  });
  return new Promise((resolve, reject) => {
    server.on("error", reject);
    server.listen(port, "127.0.0.1", () =>
      resolve({ port: server.server.address().port, stop: () => new Promise((ended) => server.close(ended)) }),
    );
  });
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const { port } = await startMailbox(({ to, text }) => console.log(`\n— to ${to.join(", ")}\n${text}`));
  console.log(`A mailbox listens: LANE_MAIL=smtp://127.0.0.1:${port}`);
}
