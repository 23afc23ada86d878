/** Who a window says it is, until members sign in: kept in a cookie, which goes with every question (see `app/api/answer`). */
const cookie = "lane-member";

export function chooseMember(id: string): void {
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store is not everywhere yet.
  document.cookie = `${cookie}=${encodeURIComponent(id)}; path=/; max-age=31536000; samesite=strict`;
  window.location.reload();
}

/** The first letters of the first and the last of somebody's names. */
export function initialsOf(name: string): string {
  const parts = name.trim().split(/\s+/);
  const letters = [parts[0], parts.length > 1 ? parts.at(-1) : undefined].map((part) => [...(part ?? "")][0] ?? "");
  return letters.join("").toUpperCase();
}
