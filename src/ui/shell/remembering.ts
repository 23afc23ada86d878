import type { SystemContext } from "@chakra-ui/react";
import { css as written } from "@emotion/react";

/** So many styles are remembered, and then none: some are drawn once only, such as where something stands while it is dragged. */
const mostStyles = 5000;

/**
 * A look that works out once what every element asks of it whenever it is drawn: what the recipe of its component says, the styles that
 * come of it and of what the element says itself, their text, and their name, which is a hash of the text. The library makes the recipe
 * of a component anew for each element, so that what a recipe has found out is never asked for again.
 */
export function remembering(look: SystemContext): SystemContext {
  type Recipe = ReturnType<SystemContext["cva"]>;
  const properties = new Map<string, boolean>();
  const recipes = new WeakMap<object, Recipe>();
  const numberOf = new WeakMap<object, number>();
  const numbers = new Map<string, number>();
  let lastNumber = 0;
  const styles = new Map<string, ReturnType<typeof written>>();

  /** Stands for a style that somebody holds; the same for two that say the same. */
  const numbered = (style: object): number => {
    const known = numberOf.get(style);
    if (known !== undefined) return known;
    const text = JSON.stringify(style);
    const number = numbers.get(text) ?? ++lastNumber;
    numbers.set(text, number);
    numberOf.set(style, number);
    return number;
  };

  const cva = (config: object = {}): Recipe => {
    const recipe = recipes.get(config) ?? (look.cva(config) as Recipe);
    recipes.set(config, recipe);
    return recipe;
  };

  const css = (...parts: readonly object[]) => {
    // What an element says itself stands last, and is another object each time.
    let key = JSON.stringify(parts.at(-1));
    for (let at = 0; at < parts.length - 1; at++) key = `${numbered(parts[at] as object)} ${key}`;
    const known = styles.get(key);
    if (known) return known;
    if (styles.size >= mostStyles) {
      styles.clear();
      numbers.clear();
    }
    const made = written(look.css(...parts) as never);
    styles.set(key, made);
    return made;
  };

  return {
    ...look,
    cva: cva as SystemContext["cva"],
    css: css as unknown as SystemContext["css"],
    isValidProperty: (name) => {
      const known = properties.get(name);
      if (known !== undefined) return known;
      const isOne = look.isValidProperty(name);
      properties.set(name, isOne);
      return isOne;
    },
  };
}
