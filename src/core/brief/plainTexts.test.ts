import { describe, expect, test } from "vitest";
import { emptyBrief } from "./document";
import { framesOf } from "./frames";
import { markAll } from "./markAll";
import { markedText } from "./markedText";
import { readBrief } from "./sentences";
import { suggestMarks } from "./suggest/suggest";
import { outline } from "./testing/outline";

/** A text without marks, read with all that are suggested: its processes, with who does what. */
function framesIn(text: string) {
  const plain = markedText(text);
  const document = markAll(plain, suggestMarks(readBrief(plain), [], []));
  return framesOf(readBrief(document), { ...emptyBrief, document });
}

const table: readonly [what: string, text: string, reads: readonly string[], open: readonly string[]][] = [
  [
    "little words inside of others stay",
    "The clerk submits the request. The officer permits it.",
    ["Submit request (Clerk)", "Permit request (Officer)"],
    [],
  ],
  [
    "checks if is checks whether",
    "The storekeeper checks if the part is in stock. If so, he ships it. If not, the desk asks the supplier if another one is free. If yes, the storekeeper orders one.",
    [
      "Check if part is in stock (Storekeeper)",
      "Part in stock?",
      "  yes",
      "    Ship part (Storekeeper)",
      "  no",
      "    Ask supplier if another one is free (Desk)",
      "    Another one free?",
      "      yes",
      "        Order one (Storekeeper)",
      "      no",
    ],
    [],
  ],
  [
    "what a test shows is asked behind it, and the test is repeated",
    "The crew tests the seal and replaces it if it leaks. This is repeated until the seal holds. Then the crew signs the record.",
    ["Test seal (Crew)", "Seal leaks?", "  yes ↺ Test seal", "    Replace seal (Crew)", "  no", "Sign record (Crew)"],
    [],
  ],
  [
    "one of two ways is repeated",
    "The leader reviews the record and either accepts it or sends it back. This is repeated until the record is right.",
    [
      "Review record (Leader)",
      "Accept record or send it back?",
      "  accept record",
      "    Accept record (Leader)",
      "  send it back ↺ Review record",
      "    Send record back (Leader)",
    ],
    [],
  ],
  [
    "who gets something goes on with it, with a comma or without; what somebody is there for is no step",
    "The desk hands the request over to the planner who estimates the effort and prepares the offer. The clerk sends the offer to the household who wants the connection.",
    [
      "Hand request over to planner (Desk)",
      "Estimate effort (Planner)",
      "Prepare offer (Planner)",
      "Send offer to household who wants connection (Clerk)",
    ],
    [],
  ],
  [
    "what may be repeated together with what leads to it",
    "The planner drafts the plan. The manager reviews it. This is repeated until the manager agrees.",
    ["Draft plan (Planner)", "Review plan (Manager)", "Manager agrees?", "  no ↺ Review plan", "  yes"],
    ["What is done again here, and from where does it go on?"],
  ],
  [
    "three ranges are three answers",
    "If the amount is below 500 euros, the clerk approves the bill. Between 500 and 5000 euros, the manager approves it. Above 5000 euros, the board decides.",
    [
      "Amount?",
      "  below 500 euros",
      "    Approve bill (Clerk)",
      "  between 500 and 5000 euros",
      "    Approve bill (Manager)",
      "  above 5000 euros",
      "    Decide (Board)",
    ],
    [],
  ],
  [
    "a condition behind otherwise",
    "Sales checks the credit limit. If it is exceeded, finance is informed. Otherwise sales confirms the order, unless the item is out of stock. In that case the customer is offered a substitute.",
    [
      "Check credit limit (Sales)",
      "Credit limit exceeded?",
      "  yes",
      "    Inform finance (Sales)",
      "  no",
      "    Item out of stock?",
      "      no",
      "        Confirm order (Sales)",
      "      yes",
      "        Offer customer substitute (Sales)",
    ],
    [],
  ],
  [
    "the ways that depend on something",
    "Depending on the damage, the crew repairs the line, replaces the pole, or calls the emergency team.",
    [
      "Damage?",
      "  repair line",
      "    Repair line (Crew)",
      "  replace pole",
      "    Replace pole (Crew)",
      "  call emergency team",
      "    Call emergency team (Crew)",
    ],
    [],
  ],
  [
    "what must not be done is asked about, and is no step",
    "The planner reviews the roof plan. If the plan has errors, the installer must not begin the work. Nobody checks it, and no report is sent.",
    ["Review roof plan (Planner)", "Plan has errors?", "  yes", "  no"],
    ['What follows from each answer to "Plan has errors?"?'],
  ],
  [
    "two who work side by side, and what comes when both are done",
    "While the crew installs the panels, the office orders the meter. As soon as both are finished, the inspector visits the site and either accepts or rejects the installation.",
    [
      "together",
      "  | Install panels (Crew)",
      "  | Order meter (Office)",
      "Visit site (Inspector)",
      "Accept or reject installation?",
      "  accept installation",
      "    Accept installation (Inspector)",
      "  reject installation",
      "    Reject installation (Inspector)",
    ],
    [],
  ],
  [
    "the way something comes is nobody",
    "The operator creates a ticket, which is sent to billing by e-mail, who issue the invoice. Tickets with high priority are handled at once by the standby crew, all others are put on a list.",
    [
      "Create ticket (Operator)",
      "Send ticket to billing (Operator)",
      "Issue invoice (Billing)",
      "With high priority?",
      "  yes",
      "    Handle tickets with high priority at once (Standby crew)",
      "  no",
      "    Put others on list (Billing)",
    ],
    [],
  ],
  [
    "orders to whoever reads them",
    "Check the form. If it is incomplete, return it to the applicant. Print the permit.",
    [
      "Check form (nobody)",
      "Form incomplete?",
      "  yes",
      "    Return form to applicant (nobody)",
      "  no",
      "Print permit (nobody)",
    ],
    ['Who does "Check form"?', 'Who does "Return form to applicant"?', 'Who does "Print permit"?'],
  ],
  [
    "inverted and elided conditions",
    "The lab tests the sample. Should the value exceed the limit, the lab alerts the inspector. Otherwise the lab files the value. The supervisor reads the request. If approved, it is sent to procurement; if rejected, the clerk writes a letter.",
    [
      "Test sample (Lab)",
      "Value exceeds limit?",
      "  yes",
      "    Alert inspector (Lab)",
      "  no",
      "    File value (Lab)",
      "Read request (Supervisor)",
      "Approved?",
      "  yes",
      "    Send request to procurement (Supervisor)",
      "  no",
      "    Write letter (Clerk)",
    ],
    [],
  ],
  [
    "what may come at any time",
    "The household can withdraw the application at any time. The desk then cancels the case.",
    ["Application withdrawn (Household)", "Cancel case (Desk)"],
    ['"Application withdrawn" can come at any time: what becomes of the work that is under way then?'],
  ],
  [
    "what was asked for and is not told of again",
    "The clerk checks the form. If the form is incomplete, the clerk asks for the missing pages. If the form is complete, the clerk forwards it to the engineer and files a copy.",
    [
      "Check form (Clerk)",
      "Form incomplete?",
      "  yes ↺ Check form",
      "    Ask for missing pages (Clerk)",
      "  no",
      "    Forward form to engineer (Clerk)",
      "    File copy (Clerk)",
    ],
    ['Where does it go on after "Ask for missing pages"?'],
  ],
  [
    "two who do one thing together",
    "The engineer and the planner check the plan. Both must agree. If they do not, the director decides.",
    ["Check plan (Planner)", "Agree (Planner)", "They agree?", "  yes", "  no", "    Decide (Director)"],
    ['Who does "Check plan": Engineer or Planner?'],
  ],
  [
    "what takes long, and two who review",
    "A clerk and a manager review each claim. Repairs that take longer than a day are reported to the owner.",
    [
      "Review each claim (Manager)",
      "Repairs take longer than day?",
      "  yes",
      "    Report repairs to owner (Manager)",
      "  no",
    ],
    ['Who does "Review each claim": Clerk or Manager?'],
  ],
  [
    "what has to be done before something can be",
    "Before the meter can be replaced, the technician records the old reading. He then removes the old meter.",
    ["Record old reading (Technician)", "Remove old meter (Technician)"],
    [],
  ],
  [
    "who is called by the process works in it; a verb is changed where it stands",
    "The process owner approves the plan. The policy is sent to the household. Should the reader read a high value, the clerk calls the household.",
    [
      "Approve plan (Process owner)",
      "Send policy to household (Process owner)",
      "Reader reads high value?",
      "  yes",
      "    Call household (Clerk)",
      "  no",
    ],
    [],
  ],
  [
    "who files it where it was passed on to",
    "The coordinator sorts the forms and passes them on to the regional office, where a case worker enters them.",
    ["Sort forms (Coordinator)", "Pass forms on to regional office (Coordinator)", "Enter forms (Case worker)"],
    [],
  ],
];

describe("a text without marks", () => {
  test.each(table)("%s", (_, text, reads, open) => {
    const [frame] = framesIn(text);
    expect(outline(frame?.items ?? [])).toEqual(reads);
    expect(frame?.open.map(({ question }) => question.text)).toEqual(open);
  });

  test.each([
    ["Every month the controller checks all closed tickets.", "Check all closed tickets every month", undefined],
    [
      "Upon receipt of the invoice, accounting compares it with the order.",
      "Invoice received",
      "Compare invoice with order",
    ],
    ["After receiving the complaint, the desk acknowledges it.", "Complaint received", "Acknowledge complaint"],
    [
      "The purpose of this process is to connect roofs. The process begins when a household hands in an application. The desk registers it.",
      "Household handed in application",
      "Register application",
    ],
    [
      "A household that wants to feed in power fills in a form and sends it to the desk. The desk registers it.",
      "Household that wants to feed in power filled in form and sent it to desk",
      "Register form",
    ],
    [
      "Once the contract is signed and the deposit has been paid, the planner orders the panels.",
      "Contract signed and deposit paid",
      "Order panels",
    ],
  ])("%s is called %s", (text, name, step) => {
    const frames = framesIn(text);
    expect(frames.map((frame) => frame.name)).toEqual([name]);
    if (step !== undefined) expect(outline(frames[0]?.items ?? [], false)).toEqual([step]);
  });
});
