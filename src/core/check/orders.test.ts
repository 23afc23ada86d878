import { describe, expect, test } from "vitest";
import { readsAsOrder } from "./orders";

/** Common practice for names of events; the names are our own. */
describe("an order says what is to be done", () => {
  test.each([
    "Receive application",
    "Close the case",
    "Close account",
    "Close open cases",
    "Verify the plant",
    "Notify household",
    "Wait for payment",
    "Respond to customer",
    "Install new meter",
    "Put up the meter",
    "Re-check the plant",
    "Double-check meter",
    "Exchange meter",
    "Install plant",
    "Check speed",
    "Order seed",
    // By words that name things as well.
    "Order meter",
    "Order the meter",
    "Order all parts",
    "Plan work",
    "Review file",
    "Check capacity",
    "Check results",
    "Call customer",
    "Answer question",
    "Issue invoice",
    "Set up crew",
    "Order new meter",
    "Check old plant",
    "Test “north” plant",
    "Report this fault",
  ])("%s", (name) => {
    expect(readsAsOrder(name)).toBe(true);
  });
});

describe("a state says what is the case", () => {
  test.each([
    "Application received",
    "Plant ready to switch on",
    "Plant inspected",
    "Meter exchange due",
    "10 working days",
    "Every night at 2:00",
    "Complaint closed",
    "Crew on site",
    "Done",
    "Close",
    "",
    "—",
    // What begins with a word that could be done.
    "Meter-exchange due",
    "Exchange done",
    "Install finished",
    "Upload failed",
    "Order delivered",
    "Offer agreed",
    "Report published",
    "Form registered",
    "Order received",
    "Order number missing",
    "Order deadline",
    "Offer signed by the household",
    "Offer expires",
    "Contract ends",
    "Change request received",
    "Work order done",
    "Work permit",
    "Work in progress",
    "Check results available",
    "Test period",
    "Report week over",
    "Report on the plant",
    "Review date",
    "Help desk called",
    "Bill paid",
    "Post arrived",
    "Stock low",
    "Repair needed",
    "Process started",
    "Complete file handed in",
    "Visit over",
    "File sent",
    "Antrag erhalten",
    "Vertrag gekündigt",
  ])("%s", (name) => {
    expect(readsAsOrder(name)).toBe(false);
  });
});

test("however long a name is, it is read at once", () => {
  expect(readsAsOrder(`Close ${"the case and ".repeat(5_000)}`)).toBe(true);
  expect(readsAsOrder("-".repeat(100_000))).toBe(false);
});
