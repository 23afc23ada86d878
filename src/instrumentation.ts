/** What the server does when it starts. Next.js calls `register` once, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  if (process.env.NEXT_MANUAL_SIG_HANDLE === "true") {
    const { stopOnSignals } = await import("@/server/workspace/stopping");
    stopOnSignals();
  }
  const { signsIn } = await import("@/server/kernel/signInMode");
  if (signsIn()) {
    const { sayOwnerCode } = await import("@/server/members/ownerCode");
    await sayOwnerCode();
  }
  const { beginTicking } = await import("@/server/live/ticking");
  beginTicking();
  const { beginDigests } = await import("@/server/digest/digests");
  beginDigests();
}
