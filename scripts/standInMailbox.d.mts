/** Starts a mail server that shows what it is sent; port 0 takes a free one. */
export function startMailbox(
  onMail: (mail: { readonly to: readonly string[]; readonly text: string }) => void,
  port?: number,
): Promise<{ readonly port: number; readonly stop: () => Promise<unknown> }>;
