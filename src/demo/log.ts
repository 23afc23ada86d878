import { type EventLog, LogBuilder } from "@/core/evidence";
import { Stream } from "@/core/forecast";
import { type LogTrace, runCases, runWorld, traceOf } from "@/core/live";
import type { Id, Model } from "@/core/model";
import { scenariosOf } from "@/core/scenario";

/** One piece of work of a case, from its beginning to its completion. */
interface Work {
  activity: string;
  role: string;
  began: number;
  until: number;
}

const [check, study, visit, approve] = [
  "Check documents",
  "Check feeder capacity",
  "Book visit by telephone",
  "Approve connection design",
];
/** What the case register calls a step otherwise than the model. */
export const otherName = "Telephone for a visit";
const people: { readonly [role: string]: readonly string[] } = {
  "Front desk": ["Tilda Quist", "Bram Oduya"],
  "Network engineer": ["Oran Veltri"],
  "Field crew": ["Pia Sund", "Levi Marr"],
  Billing: ["Ines Koval"],
};
const hour = 3_600_000;

/**
 * What the case register wrote down of half a year: cases as the as-is plays them, some of which went otherwise. Documents are checked
 * late, a visit is needed twice, the study of the feeder is skipped, and designs are approved at the front desk. The same every time.
 */
export function demoLog(model: Model, process: Id): EventLog {
  const chance = new Stream(21, "demo log");
  const random = () => chance.next();
  const builder = new LogBuilder();
  runCases(runWorld(model), process, {
    cases: 420,
    scenario: scenariosOf(model)[0],
    seed: 7,
    log: (number, events) => {
      const works = worksOf(traceOf(String(number), events, [model]));
      if (works.length === 0) return;
      wait(works, random);
      deviate(works, random);
      const of = builder.case(`QP-${String(2_101 + number)}`);
      builder.attribute(of, "Channel", random() < 0.7 ? "portal" : "letter");
      builder.attribute(of, "District", ["Harbour", "Old town", "Hill side"][Math.floor(random() * 3)] as string);
      for (const { activity, role, began, until } of works) {
        const staff = people[role] ?? [];
        const who = staff[Math.floor(random() * staff.length)] ?? "";
        const event = { activity: activity === visit ? otherName : activity, role, who };
        builder.event(of, { ...event, at: began, lifecycle: "start" });
        builder.event(of, { ...event, at: until, lifecycle: "complete" });
      }
    },
  });
  return builder.end(true);
}

function worksOf({ events }: LogTrace): Work[] {
  const works: Work[] = [];
  const open = new Map<string, Work[]>();
  for (const { activity, role, at, lifecycle } of events) {
    const own = open.get(activity) ?? [];
    open.set(activity, own);
    if (lifecycle === "start") own.push({ activity, role, began: at, until: at });
    const work = lifecycle === "complete" ? own.shift() : undefined;
    if (work) works.push({ ...work, until: at });
  }
  return works;
}

/** Hours that work lies before somebody of another role begins on it, and of the same; on average. */
const [handedOn, goesOn] = [11, 1.5];

/** Work waits for people, longer where it changes hands. What is done side by side waits together. */
function wait(works: Work[], random: () => number): void {
  let [late, role, until] = [0, "", 0];
  for (const work of works) {
    if (work.began >= until) late += -Math.log(1 - random()) * (work.role === role ? goesOn : handedOn) * hour;
    [role, until] = [work.role, Math.max(until, work.until)];
    work.began += late;
    work.until += late;
  }
}

/** What goes otherwise than modelled, in some cases. */
function deviate(works: Work[], random: () => number): void {
  const [late, second, skipped, other] = [random() < 0.09, random() < 0.06, random() < 0.07, random() < 0.05];
  const named = (name: string) => works.find(({ activity }) => activity === name);
  const [checked, studied, visited, approved] = [named(check), named(study), named(visit), named(approve)];
  // A study that was made before the documents were looked at: the two change their places.
  if (late && checked && studied && studied.began >= checked.until) {
    const [from, until] = [checked.began, studied.until];
    const took = checked.until - checked.began;
    studied.until = from + (studied.until - studied.began);
    studied.began = from;
    checked.began = until - took;
    checked.until = until;
  } else if (skipped && studied) works.splice(works.indexOf(studied), 1);
  if (second && visited) {
    const again = { ...visited, began: visited.until + 26 * hour, until: visited.until + 26.2 * hour };
    for (const work of works)
      if (work.began >= visited.until) {
        work.began += 30 * hour;
        work.until += 30 * hour;
      }
    works.push(again);
  }
  if (other && approved) approved.role = "Front desk";
}
