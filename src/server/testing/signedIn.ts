import { POST as act, GET as lookAt } from "@/app/api/session/[act]/route";
import { POST as enter, DELETE as leave, GET as look } from "@/app/api/session/route";
import { ownerCode } from "../members/ownerCode";
import { openWorkspace } from "./workspace";

/** A browser as far as signing in goes: it keeps cookies, and says where a page of ours is. */
export class Browser {
  readonly #cookies = new Map<string, string>();

  get cookie(): string {
    return [...this.#cookies].map(([name, value]) => `${name}=${value}`).join("; ");
  }
  request(path: string, method = "GET", body?: unknown): Request {
    return new Request(`http://localhost:4310${path}`, {
      method,
      headers: {
        host: "localhost:4310",
        origin: "http://localhost:4310",
        "sec-fetch-site": "same-origin",
        cookie: this.cookie,
        ...(body !== undefined && { "content-type": "application/json" }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  }
  /** Takes the cookies of an answer. */
  took(response: Response): Response {
    for (const cookie of response.headers.getSetCookie()) {
      const [, name = "", value = ""] = /^([^=]+)=([^;]*)/.exec(cookie) ?? [];
      if (value === "" || /max-age=0/i.test(cookie)) this.#cookies.delete(name);
      else this.#cookies.set(name, value);
    }
    return response;
  }
  signIn = async (email: string, password: string) =>
    this.took(await enter(this.request("/api/session", "POST", { email, password })));
  signOut = async () => this.took(await leave(this.request("/api/session", "DELETE")));
  state = async () => (await look(this.request("/api/session"))).json();
  act = async (name: string, input: unknown) =>
    this.took(
      await act(this.request(`/api/session/${name}`, "POST", input), { params: Promise.resolve({ act: name }) }),
    );
  look = async (name: string, query = "") =>
    this.took(await lookAt(this.request(`/api/session/${name}${query}`), { params: Promise.resolve({ act: name }) }));
}

export const ownersPassword = "under the north meter";

/** An empty workspace that members sign in to, with its first owner signed in. */
export async function openSignedIn(): Promise<Browser> {
  process.env.LANE_SIGN_IN = "on";
  await openWorkspace(undefined, "new");
  const browser = new Browser();
  const owner = { name: "Ines Orr", email: "ines@quillmere.example", password: ownersPassword };
  const answer = await browser.act("owner", { ...owner, code: await ownerCode() });
  if (!answer.ok) throw new Error(await answer.text());
  return browser;
}
