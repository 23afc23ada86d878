import fc from "fast-check";

// One seed everywhere, so that a failure on one machine is the same failure on the next. LANE_TEST_SEED tries others.
fc.configureGlobal({ seed: Number(process.env.LANE_TEST_SEED ?? 20261123) });
