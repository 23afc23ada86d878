import { home } from "@/contract";
import { useAsked } from "../kernel/queries";

/** Areas by their names, from the outermost down, each with the way to it. */
export function useAreas(): readonly { readonly id: string; readonly name: string }[] {
  const { data } = useAsked(home.openHome, { count: 1 });
  const areas = data?.areas ?? [];
  const byId = new Map(areas.map((area) => [area.id, area]));
  const wayTo = (id: string): string => {
    const area = byId.get(id);
    return area ? (area.parent ? `${wayTo(area.parent)} / ${area.name}` : area.name) : "";
  };
  return areas.map(({ id }) => ({ id, name: wayTo(id) })).sort((a, b) => a.name.localeCompare(b.name));
}
