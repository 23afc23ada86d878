import { createTransport } from "nodemailer";

/** The mail server that the operator names (`LANE_MAIL=smtp://…`), and from whom mails come; without it none are sent. */
export interface MailServer {
  readonly url: string;
  readonly from: string;
}

export function mailServer(env: NodeJS.ProcessEnv = process.env): MailServer | undefined {
  const url = URL.canParse(env.LANE_MAIL ?? "") ? new URL(env.LANE_MAIL ?? "") : undefined;
  if (!url || !/^smtps?:$/.test(url.protocol)) return undefined;
  return { url: url.href, from: env.LANE_MAIL_FROM || `Lucid Lane <lane@${url.hostname}>` };
}

export interface Mail {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

const mostMilliseconds = 10_000;

/** Sends one mail. @throws where the mail server does not take it, or does not answer in ten seconds */
export async function sendMail({ url, from }: MailServer, mail: Mail): Promise<void> {
  const times = {
    connectionTimeout: mostMilliseconds,
    greetingTimeout: mostMilliseconds,
    socketTimeout: mostMilliseconds,
  };
  const transport = createTransport({ url, ...times });
  try {
    await transport.sendMail({ from, ...mail });
  } finally {
    transport.close();
  }
}
