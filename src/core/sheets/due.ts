import { byText } from "../kernel";
import { nameOf, type Device, type Exception, type Gear, type PlanIndex } from "../plan";
import type { Subject } from "../repairs";

/** A day of the plan on which something ends or begins. */
export interface Due {
  /** As YYYY-MM-DD, by the calendar of the site. */
  readonly day: string;
  /** What happens then, as a sentence without its full stop. */
  readonly what: string;
  readonly subject: Subject;
  /** Whether the day is over; null where nobody knows which day it is. */
  readonly isOver: boolean | null;
}

type Told = Pick<Due, "day" | "what" | "subject">;
const told = (day: string | null, what: string, subject: Subject): Told[] =>
  day === null ? [] : [{ day, what, subject }];

const ofDevice = ({ id, name, supportUntil, licenceUntil }: Device): Told[] => [
  ...told(supportUntil, `The maker's support for ${name} ends`, { kind: "device", id }),
  ...told(licenceUntil, `The licence of ${name} ends`, { kind: "device", id }),
];

/** What was found on site and has become a device of the plan is told with that. */
const ofGear = ({ id, name, supportUntil, device }: Gear): Told[] =>
  device === null ? told(supportUntil, `The maker's support for ${name} ends`, { kind: "gear", id }) : [];

const ofException = (index: PlanIndex, { id, firstDay, lastDay }: Exception): Told[] => {
  const name = nameOf(index, "exception", id);
  return [
    ...told(firstDay, `The exception ${name} begins to hold`, { kind: "exception", id }),
    ...told(lastDay, `The exception ${name} holds for the last time`, { kind: "exception", id }),
  ];
};

/** Every day of the plan on which something ends or begins, the first one first. */
export function fallsDue(index: PlanIndex): Due[] {
  const { device, gear, signIn, forward, exception, acceptance } = index.plan;
  const all = [
    ...[...device.values()].flatMap(ofDevice),
    ...[...gear.values()].flatMap(ofGear),
    ...[...signIn.values()].flatMap(({ id, certificateUntil }) =>
      told(certificateUntil, `The certificate of ${nameOf(index, "signIn", id)} ends`, {
        kind: "signIn",
        id,
      }),
    ),
    ...[...forward.values()].flatMap(({ id, until }) =>
      told(until, `The port forward ${nameOf(index, "forward", id)} holds for the last time`, {
        kind: "forward",
        id,
      }),
    ),
    ...[...exception.values()].flatMap((exception) => ofException(index, exception)),
    ...[...acceptance.values()].flatMap(({ id, until, says }) =>
      told(until, `Accepted until then: ${says}`, { kind: "acceptance", id }),
    ),
  ];
  return all
    .map((told) => ({ ...told, isOver: index.today === null ? null : told.day < index.today }))
    .sort((a, b) => byText(a.day, b.day) || byText(a.what, b.what));
}

/** The same as a table, for a spreadsheet. */
export const dueTable = (due: readonly Due[]): string[][] => [
  ["day", "what", "over"],
  ...due.map(({ day, what, isOver }) => [day, what, isOver === true ? "yes" : ""]),
];
