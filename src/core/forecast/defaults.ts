import { entryOf, type Id, type Model } from "../model";
import { type Assumption, isZone, readCalendar, type Scenario, weekText } from "../scenario";

/** What a directory says of a role; null where it says nothing. */
export interface RoleDefaults {
  readonly id: Id;
  readonly headcount: number | null;
  readonly costPerHour: number | null;
  readonly hoursPerWeek: number | null;
}

/** What was taken from the directory for a resource of the model. */
export interface TakenFromDirectory {
  readonly element: Id;
  readonly entry: Id;
  readonly quantity: number | undefined;
  readonly costPerHour: number | undefined;
  readonly hoursPerWeek: number | undefined;
}

const weekdays = ["MO", "TU", "WE", "TH", "FR"];
const calendarOf = (hours: number): Id => `directory ${hours}`;

/** Hours a week as a calendar: five days from eight o'clock on; more than 60 are spread over seven days. */
function weekOf(hours: number, start: number, zone: string) {
  const days = hours > 60 ? [...weekdays, "SA", "SU"] : weekdays;
  const minutes = Math.min(24 * 60, Math.round((hours * 60) / days.length));
  const begins = minutes > 16 * 60 ? 0 : 8 * 60;
  const time = (of: number) => `${String(Math.floor(of / 60)).padStart(2, "0")}:${String(of % 60).padStart(2, "0")}`;
  // The first week that counts is that of a Monday well before the start.
  const monday = new Date(start - ((new Date(start).getUTCDay() + 6) % 7) * 86_400_000 - 7 * 86_400_000);
  const ends = begins + minutes;
  const text = weekText(
    days,
    time(begins),
    ends >= 24 * 60 ? "23:59" : time(ends),
    monday.toISOString().slice(0, 10),
    isZone(zone) ? zone : "UTC",
  );
  return readCalendar(text, zone).events;
}

/**
 * A scenario with what a directory says of its roles where it says nothing itself: how many there are, what an hour costs, how long one
 * works a week.
 */
export function withDirectory(
  scenario: Scenario,
  model: Model,
  roles: ReadonlyMap<Id, RoleDefaults>,
): { readonly scenario: Scenario; readonly taken: readonly TakenFromDirectory[] } {
  const of = new Map(scenario.of);
  const calendars = new Map(scenario.calendars);
  const taken: TakenFromDirectory[] = [];
  for (const element of model.elements) {
    if (element.type !== "resource") continue;
    const entry = entryOf(element);
    const role = entry === undefined ? undefined : roles.get(entry);
    if (!role) continue;
    const own: Assumption = of.get(element.id) ?? { times: {} };
    // One and a half people are two who are there three quarters of the time.
    const people = role.headcount === null ? undefined : Math.ceil(role.headcount);
    const part = people ? (role.headcount as number) / people : 1;
    const quantity = own.quantity ? undefined : people;
    const costPerHour = own.unitCost === undefined ? (role.costPerHour ?? undefined) : undefined;
    // Who says only when somebody is not there says nothing of when they are.
    const saysHours = own.available?.some(({ value, during }) => value || during === undefined);
    const hoursPerWeek =
      saysHours || role.hoursPerWeek === null ? undefined : own.quantity ? role.hoursPerWeek : role.hoursPerWeek * part;
    const known = own.quantity !== undefined || quantity !== undefined;
    if (!known || (quantity === undefined && costPerHour === undefined && hoursPerWeek === undefined)) continue;
    if (hoursPerWeek !== undefined && hoursPerWeek > 0 && !calendars.has(calendarOf(hoursPerWeek)))
      calendars.set(calendarOf(hoursPerWeek), {
        name: `${hoursPerWeek} h a week`,
        events: weekOf(hoursPerWeek, scenario.start, scenario.zone),
      });
    of.set(element.id, {
      ...own,
      ...(quantity !== undefined && { quantity: [{ value: quantity }] }),
      ...(costPerHour !== undefined && { unitCost: costPerHour / 3600 }),
      ...(hoursPerWeek !== undefined &&
        hoursPerWeek > 0 && {
          available: [...(own.available ?? []), { value: true, during: calendarOf(hoursPerWeek) }],
        }),
    });
    taken.push({ element: element.id, entry: role.id, quantity, costPerHour, hoursPerWeek });
  }
  return { scenario: { ...scenario, calendars, of }, taken };
}
