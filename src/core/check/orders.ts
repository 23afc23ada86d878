const wordsOf = (text: string): ReadonlySet<string> => new Set(text.trim().split(/\s+/));

/** What is done in business processes, by words that in a name are hardly anything else than verbs. */
const verbs = wordsOf(`
  accept accompany achieve acknowledge acquire activate adapt add adjust administer adopt advise agree align allocate allow amend
  analyse analyze announce apply appoint appraise approve arrange ask assemble assess assign attach attend authorise authorize avoid
  begin bring buy calculate calibrate cancel capture carry certify choose clarify classify close collect combine communicate compare
  compile compose compute conclude conduct configure confirm connect consider consolidate construct consult continue convert create
  decide declare decline define delete deliver deny deploy describe detect determine develop diagnose discard disconnect discuss
  dismiss distribute divide eliminate employ enable enrol enter escalate establish evaluate examine exclude execute expand explain
  extend fetch finalise finalize follow fulfil generate get give identify implement improve include inform initiate insert inspect
  instruct integrate introduce investigate invite involve join keep lay learn let locate maintain make manage merge negotiate notify
  obtain operate optimise optimize organise organize pack perform prepare prioritise prioritize procure produce protect
  prove provide publish put qualify recalculate receive recommend reconcile recover reduce refer refuse reject remind remove replace
  reply reschedule resolve respond restore retain retrieve revise revoke seek select sell send settle simplify specify submit suggest
  summarise summarize suspend take tell terminate translate transmit unlock unpack validate verify wait warn weigh withdraw write
`);

/** Verbs that are also the name of a thing ("Order received") or what it is like ("Complete file handed in"). */
const alsoThings = wordsOf(`
  address alert answer archive audit award balance bill block book build call care catch change charge check claim clean code comment
  complete contact copy correct cost cover credit cut date debit demand design direct dispatch display document download draft draw
  drive email empty end estimate exchange export extract file fill filter finish fit fix forecast form forward free grant group guide
  hand handle help hire hold import increase install interview invoice issue label launch lead leave lift link list load lock log look
  mail map mark match measure meet monitor mount move name need note notice object offer open order package pass pay pick plan post
  present price print process program prompt purchase question quote raise rate read record refund register release rent repair repeat
  report request reserve return review reward route run sample save scan schedule score search secure separate serve service set share
  ship show sign sketch sort start state stop store study subject summon supply support survey swap switch tag test touch track train
  transfer transport treat try turn type update upgrade upload use visit work
`);

/** What is done to something said with one of these is done to a thing that is meant. */
const determiners = wordsOf(`
  a an the this that these those all each every both any some another my your his her its our their
`);

/** Behind a thing: what it belongs to, or what is the case with it. */
const behindThings = wordsOf(`
  about after again against and are as at back be because before by can does during for from has have if in into is late made missing
  must needs no not now of on only or out over past per since than then there to too under until via was when while will with
  without yet
`);

/** What was done, by verbs that do not end in -ed there. */
const participles = wordsOf(`
  bought broken brought built caught chosen done drawn found frozen given gone grown held kept known laid lost made met paid proven said
  seen sent shown shut sold spent stolen taken told understood withdrawn won written
`);

/** How something is, where a name ends with it. */
const states = wordsOf(`
  absent active available bad big busy clear closed complete correct cut dead down due empty final free full good here high incomplete
  incorrect invalid large late left low missing necessary negative new ok okay old ongoing online offline open over overdue pending
  possible positive present put read ready right running set there through too true unknown unpaid urgent used valid waiting wanted
  wrong
`);

/** What a moment is called by. */
const moments = wordsOf(`
  date dates day days deadline end hour hours minute minutes month months morning evening night period quarter season start time week
  weeks weekend year years
`);

/** What things do by themselves. */
const happenings = wordsOf(`
  appears arrives begins closes comes elapses ends exceeds expires fails goes happens lapses leaves occurs opens passes reaches returns
  runs starts stops
`);

/** Things that are called by two words, of which the first could be a verb. */
const compounds = wordsOf(`
  change-order change-request check-list claim-form cover-letter guide-line hand-over help-desk order-book order-form order-list
  order-number order-status price-list purchase-order purchase-request rate-card repair-shop report-card return-ticket route-plan
  service-call service-desk service-order service-request supply-chain support-case support-desk support-ticket test-case test-report
  test-run track-record train-ticket transfer-order transport-order work-in work-order work-permit work-plan
`);

/** What ends as a participle does and is none. */
const noParticiples = wordsOf("bed breed deed embed exceed feed need proceed red seed shed sled speed succeed weed");
const isDone = (word: string) => participles.has(word) || (/[a-z]{2}ed$/.test(word) && !noParticiples.has(word));

/**
 * Whether a name begins as an order does ("Close the case") and not as a state ("Case closed"). Common practice: events are named by
 * what has happened, steps by what is to be done. English; where a word can be both, only what is likely an order counts. O(length).
 */
export function readsAsOrder(name: string): boolean {
  const words = name
    .toLowerCase()
    .split(/\s+/)
    .map((word) => word.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, ""))
    .filter((word) => word !== "");
  const [whole = "", ...rest] = words;
  const [second] = rest;
  if (second === undefined) return false;
  // "Re-check the plant"; but a "Meter-exchange" is a thing.
  const first = whole.replace(/^(?:re|pre|cross|double)-/, "");
  if (verbs.has(first)) return true;
  if (!alsoThings.has(first)) return false;
  if (determiners.has(second)) return true;
  const last = words.at(-1) as string;
  const isOfAThing =
    behindThings.has(second) ||
    compounds.has(`${first}-${second}`) ||
    states.has(last) ||
    rest.some(isDone) ||
    [second, last].some((word) => moments.has(word) || happenings.has(word));
  return !isOfAThing;
}
