import { expect, test } from "vitest";
import { fileUseCases, useCases } from "@/server";
import { acts } from "./members";

test("whatever is noted as done is told in words", () => {
  const every = Object.values({ ...useCases, ...fileUseCases });
  const noted = every.filter(({ kind, contract }) => kind !== "query" && contract.right !== "read");
  const names = noted.map(({ contract }) => contract.name);
  expect(names.length).toBeGreaterThan(80);
  expect(names.filter((name) => !(name in acts))).toEqual([]);
  const ofSigningIn = [
    "becomeOwner",
    "changePassword",
    "endSession",
    "signInFailed",
    "signedIn",
    "signedOut",
    "takeInvitation",
  ];
  expect(
    Object.keys(acts)
      .filter((name) => !names.includes(name))
      .sort(),
  ).toEqual(ofSigningIn);
});
