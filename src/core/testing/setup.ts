import fc from "fast-check";

// One seed everywhere, so that a failure on one machine is the same failure on the next. LANE_TEST_SEED tries others.
fc.configureGlobal({ seed: Number(process.env.LANE_TEST_SEED ?? 20261123) });

// Where a page is stood in for, its own kind of bytes would not be the server's kind, which is the one there is here.
globalThis.Uint8Array = Object.getPrototypeOf(Buffer.prototype).constructor;
