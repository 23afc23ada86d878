import { membership, type Right } from "@/contract";
import { useAsked } from "./queries";

/**
 * Whether who looks has a right on everything, or at least in some area: what nobody here could do is not offered. What is asked all the
 * same, the server refuses. Until it is known, yes: hardly anybody lacks anything.
 */
export function useMay(right: Right): boolean {
  const { data } = useAsked(membership.listMembers, {});
  return !data || data.rights.includes(right) || data.inAreas.some(({ rights }) => rights.includes(right));
}
