import React from "react";
import { flushSync } from "react-dom";

// Taken before a test replaces the clock.
const nextTurn = setImmediate;

/**
 * Windows are drawn by React as it is shipped, in two thirds of the time that the one for development takes. It has no `act`, which
 * Testing Library asks for: what a test does is drawn at once, and where it is waited for, what follows from it as well.
 */
function act(doing: () => unknown): PromiseLike<unknown> {
  const done = flushSync(doing);
  const followed = async () => {
    const answer = await done;
    // React begins what is not urgent in a later turn, and what follows from that in one after it.
    for (let turn = 0; turn < 3; turn++) await new Promise<void>((resolve) => nextTurn(resolve));
    return answer;
  };
  // Only where it is waited for.
  return {
    // biome-ignore lint/suspicious/noThenProperty: it is what `act` gives back.
    then: (fulfilled, rejected) => followed().then(fulfilled, rejected),
  };
}

Object.assign(React, { act });
