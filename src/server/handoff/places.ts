import { createHash } from "node:crypto";
import { resolve } from "node:path";
import { dataFolder } from "@/data/database";
import { UseCaseError } from "../kernel/useCase";
import { folderPlace } from "./folderPlace";
import { gitPlace } from "./gitPlace";
import type { Place } from "./place";

/** A place the operator allows. */
export interface AllowedPlace {
  readonly id: string;
  readonly kind: "folder" | "git";
  readonly at: string;
}

/** The stand-in for developers that ships with the demo; see `developer.ts`. */
export const demoRepository = () => resolve(/* turbopackIgnore: true */ dataFolder(), "developers.git");

/**
 * The places the operator allows: `LANE_BUILDS` lists them by blanks or line ends, each as `folder:/srv/builds` or
 * `git:https://code.example/plant.git`; nothing else is ever reached. The demo adds its own.
 */
export function allowedPlaces(env: NodeJS.ProcessEnv = process.env): AllowedPlace[] {
  const listed = (env.LANE_BUILDS ?? "").split(/\s+/).filter((one) => one !== "");
  const demo = env.LANE_DEMO === "none" ? [] : [`git:${demoRepository()}`];
  return [...listed, ...demo].flatMap((id): AllowedPlace[] => {
    const [, kind, at] = /^(folder|git):(.+)$/.exec(id) ?? [];
    return kind && at && !at.startsWith("-") ? [{ id, kind: kind as AllowedPlace["kind"], at }] : [];
  });
}

export function placeNamed(id: string): Place {
  const allowed = allowedPlaces().find((place) => place.id === id);
  if (!allowed)
    throw new UseCaseError(
      "place-not-allowed",
      "This place is not among those that may be reached. Whoever runs the server can allow it in LANE_BUILDS.",
      403,
    );
  if (allowed.kind === "folder") return folderPlace(allowed.at);
  const mirror = createHash("sha256").update(allowed.at).digest("hex").slice(0, 16);
  return gitPlace(
    allowed.at,
    resolve(/* turbopackIgnore: true */ dataFolder(), "builds", `${mirror}.git`),
    allowed.at === demoRepository(),
  );
}
