import {
  nameOf,
  segmentHolding,
  type Exception,
  type PlanIndex,
  type RuleSide,
  type Segment,
} from "../../plan";
import { decide, onItsDays, type WallSide } from "../../policy";
import type { Repair } from "../../repairs";
import { check, type Found } from "../check";
import { reserve } from "../gateway/forwards";

interface ExceptionData {
  readonly exception: string;
}

const foundAt = ({ id }: Exception): Found<ExceptionData> => ({
  subjects: [{ kind: "exception", id }],
  data: { exception: id },
});

const remove = (index: PlanIndex, exception: string): Repair => ({
  label: `Remove the exception ${nameOf(index, "exception", exception)}`,
  planner: "remove-exceptions",
  args: { exceptions: [exception] },
  edit: (edits) => edits.remove("exception", exception),
});

export const exceptionOver = check<ExceptionData>({
  code: "exception-over",
  severity: "note",
  family: "walls",
  title: "An exception's last day is over",
  why: "What nobody needs any more is still there to be found, and on the device it may still be open.",
  reads: ["exception"],
  find: (index) =>
    [...index.plan.exception.values()]
      .filter(({ lastDay }) => lastDay !== null && index.today !== null && lastDay < index.today)
      .map(foundAt),
  describe: ({ exception }, index) =>
    `The exception ${nameOf(index, "exception", exception)} held until ` +
    `${index.plan.exception.get(exception)?.lastDay ?? ""}: take it off the device, and out of the plan.`,
  repairs: ({ exception }, index) => [remove(index, exception)],
});

interface MovingData extends ExceptionData {
  readonly host: string;
}

const hostsOf = ({ from, to }: Exception): string[] =>
  [from, to].flatMap((side) => (side.at === "host" ? [side.host] : []));

export const exceptionHostMoves = check<MovingData>({
  code: "exception-host-moves",
  severity: "stop",
  family: "walls",
  title: "An exception is for a device whose address may move",
  why: "A filter knows devices by their address: one day it lets somebody else through.",
  reads: ["exception", "host"],
  find: ({ plan }) =>
    [...plan.exception.values()].flatMap((exception) =>
      hostsOf(exception).flatMap((id): Found<MovingData>[] => {
        const host = plan.host.get(id);
        return host === undefined || (host.manner !== "dynamic" && host.ipv4 !== null)
          ? []
          : [
              {
                subjects: [
                  { kind: "exception", id: exception.id },
                  { kind: "host", id },
                ],
                data: { exception: exception.id, host: id },
              },
            ];
      }),
    ),
  describe: ({ exception, host }, index) =>
    `${nameOf(index, "host", host)} gets its address by DHCP without a reservation, and the exception ` +
    `${nameOf(index, "exception", exception)} is for it alone.`,
  repairs: ({ exception, host }, index) => [...reserve(index, host), remove(index, exception)],
});

/** Whose side of the walls an end is on; null where that is none of the plan's. */
function sideOfWall(index: PlanIndex, side: RuleSide): WallSide | null {
  const segment = (id: string | null | undefined): Segment | null => index.plan.segment.get(id ?? "") ?? null;
  switch (side.at) {
    case "internet":
    case "gateway":
      return side.at;
    case "segment":
      return segment(side.segment);
    case "host":
      return segment(index.plan.host.get(side.host)?.segment);
    case "prefix":
      return segmentHolding(index.plan, side.prefix.network) ?? null;
    case "zone":
      return [...index.plan.segment.values()].find(({ zone }) => zone === side.zone) ?? null;
  }
}

/** Whether the walls let everything through already that an exception is for. */
function isNeedless(index: PlanIndex, exception: Exception): boolean {
  const [from, to] = [sideOfWall(index, exception.from), sideOfWall(index, exception.to)];
  if (from === null || to === null) return false;
  if (exception.services.length > 0)
    return exception.services.every((service) => decide(index, from, to, service).passes);
  const { passes, wall } = decide(index, from, to, null);
  return passes && wall?.door !== "services";
}

export const exceptionNeedless = check<ExceptionData>({
  code: "exception-needless",
  severity: "note",
  family: "walls",
  title: "An exception opens what the walls leave open",
  why: "Whoever reads the list looks for a reason that there is not.",
  reads: ["exception", "wall", "zone", "segment", "host"],
  find: (index) =>
    [...index.plan.exception.values()]
      .filter((exception) => onItsDays(index, exception) && isNeedless(index, exception))
      .map(foundAt),
  describe: ({ exception }, index) =>
    `Everything that the exception ${nameOf(index, "exception", exception)} is for passes the walls anyway.`,
  repairs: ({ exception }, index) => [remove(index, exception)],
});

export const vendorStays = check<ExceptionData>({
  code: "vendor-stays",
  severity: "warn",
  family: "walls",
  title: "A vendor's way in stays open",
  why: "Access for a vendor is switched on for a time: with a last day, or in hours somebody looks after.",
  reads: ["exception", "segment", "zone", "host"],
  find: (index) =>
    [...index.plan.exception.values()].flatMap((exception) => {
      const from = sideOfWall(index, exception.from);
      const isVendor = from !== null && typeof from !== "string" && from.purpose === "vendor";
      return isVendor && exception.lastDay === null && exception.hours === null ? [foundAt(exception)] : [];
    }),
  describe: ({ exception }, index) =>
    `The exception ${nameOf(index, "exception", exception)} lets a vendor in at all hours, without a last day.`,
  repairs: ({ exception }, index) => [
    {
      label: "Let it hold on working days from 08:00 to 17:00",
      planner: "write-exception",
      args: { exception },
      edit: (edits) =>
        edits.patch("exception", exception, { hours: { days: [1, 2, 3, 4, 5], from: 480, to: 1020 } }),
    },
    remove(index, exception),
  ],
});
