import { expect, test } from "vitest";
import { askedTogether } from "./together";

/** Answers one after the other, each when it is let go. */
function answering() {
  const open: (() => void)[] = [];
  let count = 0;
  return {
    answer: () =>
      new Promise<number>((resolve) => {
        const own = ++count;
        open.push(() => resolve(own));
      }),
    letGo: () => open.shift()?.(),
    begun: () => count,
  };
}

test("who asks while it is answered shares the next answer, which begins after they asked; nobody is given an older one", async () => {
  const { answer, letGo, begun } = answering();
  const first = askedTogether("a", answer);
  const many = Array.from({ length: 200 }, () => askedTogether("a", answer));
  expect(begun()).toBe(1);
  letGo();
  expect(await first).toBe(1);
  await expect.poll(begun).toBe(2);
  const late = askedTogether("a", answer);
  letGo();
  expect(new Set(await Promise.all(many))).toEqual(new Set([2]));
  await expect.poll(begun).toBe(3);
  letGo();
  expect(await late).toBe(3);
});

test("other questions do not wait, and one that failed fails for those who waited for it alone", async () => {
  const { answer, letGo } = answering();
  const slow = askedTogether("slow", answer);
  expect(await askedTogether("quick", async () => "there")).toBe("there");
  letGo();
  await slow;
  let isBroken = true;
  const shaky = async () => {
    if (isBroken) throw new Error("broken");
    return "whole";
  };
  await expect(askedTogether("shaky", shaky)).rejects.toThrow("broken");
  isBroken = false;
  expect(await askedTogether("shaky", shaky)).toBe("whole");
});

test("after a rest the same is asked anew", async () => {
  let count = 0;
  const ask = () => askedTogether("again", async () => ++count);
  expect(await ask()).toBe(1);
  expect(await ask()).toBe(2);
  expect(await ask()).toBe(3);
});
