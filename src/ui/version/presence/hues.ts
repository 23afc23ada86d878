import { lensPens, penColours } from "@/core/lens";

/** The colour of a member: the same in every window. */
export function hueOf(member: string): string {
  let sum = 0;
  for (const letter of member) sum = (sum * 31 + letter.charCodeAt(0)) % 9973;
  return penColours[lensPens[sum % lensPens.length] ?? "plum"];
}
