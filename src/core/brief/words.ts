/** Word lists of everyday business English, for telling what a noun or verb is likely to stand for. Common practice, no source. */
const list = (words: string) => new Set(words.trim().split(/\s+/));

/** People and bodies that are outside the organisation whose work is described, whatever they do. */
export const alwaysParties = list(`
  advertiser applicant authority bidder borrower citizen claimant client company consumer couple customer debtor donor family guest
  household installer insurer landlord learner maker ministry neighbour parent participant passenger patient payer
  policyholder public pupil regulator requester resident student subcontractor subscriber supplier tenant traveller user vendor
  visitor wholesaler recipient addressee`);

/** Others who may be outside; where they do the work that is described they are inside. */
export const partyNouns = list(`
  applicant authority bank bidder buyer carrier citizen claimant client club consumer contractor council couple customer debtor donor
  guest household installer insurer inspector landlord member ministry museum neighbour nursery owner passenger patient payer
  policyholder public reader regulator requester resident rider seller shipper shopper student subcontractor subscriber supplier tenant
  trader traveller user vendor visitor wholesaler maker parent pupil learner gardener company family recipient`);

/** People and groups inside it. */
export const roleNouns = list(`
  accounting accountant administrator adviser agent analyst archivist assessor assistant back-office billing bookkeeper
  cashier caseworker clerk colleague controller coordinator counsel crew department desk director dispatcher driver editor
  doctor physician developer designer programmer trainer teacher baker cook chef captain guard cleaner tailor craftsman estimator
  employee engineer expert hr lead boss chief president committee board fitter foreman group head hotline keeper lawyer leader librarian logistics manager mechanic nurse
  office officer operations operator owner planner planning porter procurement purchasing receptionist representative reviewer sales
  scheduler secretary specialist staff steward supervisor support surveyor team technician tester treasurer unit warehouse
  worker`);

/** Nouns that end like people and are not. */
export const thingsLikePeople = list(`
  agreement amount breaker calendar cancer center chapter charter computer corner counter cover document drawer equipment
  feeder filter folder former hour inverter layer ledger letter matter meter moment number offer order paper payment printer
  protocol quarter reminder rather register server shoulder statement tender transformer voucher water weather other day year
  later further order folder answer computer centre factor error sensor door floor reactor`);

export const systemNouns = list(`
  app archive board book calendar catalogue database directory inbox ledger mailbox map platform planner portal program register
  registry server service software spreadsheet system tool website workbook`);

export const documentNouns = list(`
  agreement artwork bill card certificate checklist confirmation contract draft drawing email envelope estimate evidence form
  instruction invoice label layout lease letter licence log manual memo minutes note notification offer permit photo plan policy
  proof proposal protocol questionnaire quotation receipt refusal reminder report schedule sheet slip statement summary tag ticket
  voucher warning`);

/** Papers that are as often the matter itself: they count where somebody reads, checks, files or writes them. */
export const casePapers = list(`
  application claim complaint file list mail message notice order paper papers reading record request response text`);

/** Verbs that say how things are, not what somebody does. */
export const stateVerbs = list(`
  be have mean need want know contain belong depend last happen begin start live own exist cost consist remain stay seem
  appear become differ matter concern lie stand let can may must should will would could shall like hope expect think
  believe say occur apply become involve include cover wish`);

/** Verbs after which a document is new or goes out; after others it is what one works with. */
export const givingVerbs = list(`
  write draft draw prepare issue send create make print produce compile report fill hand mail email post publish note sum summarise
  list invoice bill answer generate leave add complete type attach design provide supply deliver`);

/** Verbs by which a system is read, not written to. */
export const readingVerbs = list(
  "look check read find see compare open consult search watch review inspect verify retrieve",
);

export const sendingVerbs = list(`
  send inform notify tell mail email post write answer remind ask request report invoice bill warn alert propose offer hand return
  give deliver ship forward present submit order reorder invite pass transmit refund pay announce confirm show issue file`);

/** Verbs whose object is who is told or asked. */
export const askingVerbs = list(
  "ask tell inform notify remind warn alert call phone thank invite contact advise consult question urge chase",
);

/** Verbs by which a case comes to an end, where they are said of the case itself. */
export const closingVerbs = list("close end stop finish terminate conclude settle drop abandon lapse expire");
/** What a case is called. */
export const caseNouns = list(`
  case file request claim matter procedure process order application job inquiry enquiry suggestion registration reservation
  purchase opening complaint work project work-order ticket incident reservation booking offer proposal`);

/** Verbs after which nothing is likely to follow. */
export const refusingVerbs = list("reject refuse decline cancel withdraw deny abort discard dismiss");
