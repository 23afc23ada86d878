/** How the interface talks to the server: a use case by name, its input as JSON. */
export class ServerError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

export async function ask<Output>(useCase: string, input: unknown = {}): Promise<Output> {
  const response = await fetch(`/api/do/${useCase}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(input),
  });
  return readAnswer<Output>(response);
}

export async function sendBytes<Output>(
  path: string,
  bytes: Blob | ArrayBuffer,
  signal?: AbortSignal,
): Promise<Output> {
  const response = await fetch(path, {
    method: "POST",
    body: bytes,
    ...(signal && { signal }),
    headers: { "content-type": "application/octet-stream" },
  });
  return readAnswer<Output>(response);
}

/** Asks for a file, and hands it to the person. */
export async function saveFile(path: string, input: unknown, name: string): Promise<void> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(input),
  });
  if (!response.ok) await readAnswer(response);
  giveFile(await response.blob(), name);
}

/** Hands a file to the person. */
export function giveFile(content: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

async function readAnswer<Output>(response: Response): Promise<Output> {
  const body = (await response.json().catch(() => ({}))) as { error?: { code: string; message: string } };
  if (!response.ok)
    throw new ServerError(
      body.error?.code ?? "no-answer",
      body.error?.message ?? `The server answered ${response.status}.`,
      response.status,
    );
  return body as Output;
}
