import { putInto } from "../../kernel";
import { formatAddress, type Address } from "../../address";
import { isAdministered, nameOf, segmentHolding, type Device, type PlanIndex, type WayIn } from "../../plan";
import {
  BASELINE_FIELDS,
  baselineText,
  beyondDevice,
  offBaseline,
  toBaseline,
  WAY_IN_WORDS,
  type BaselineField,
} from "../../planners";
import { gearServerReached, type GearAsks, type ProbeRun, type ServerReached } from "../../probe";
import { listed, type Repair } from "../../repairs";
import { check, type Found } from "../check";
import { ASKED_READS, askedOn, repairsFor } from "../guards/asked-servers";

interface OnDevice {
  readonly device: string;
}
interface OfFields extends OnDevice {
  readonly fields: readonly BaselineField[];
}

const word = (field: BaselineField): string =>
  BASELINE_FIELDS.find(([name]) => name === field)?.[1].toLowerCase() ?? field;

const onDevice = ({ id }: Device) => [{ kind: "device" as const, id }];

/** Devices of which a list of fields is not empty. */
const withFields = (
  index: PlanIndex,
  fieldsOf: (index: PlanIndex, device: Device) => readonly BaselineField[],
): Found<OfFields>[] =>
  [...index.plan.device.values()].flatMap((device) => {
    const fields = fieldsOf(index, device);
    return fields.length === 0 ? [] : [{ subjects: onDevice(device), data: { device: device.id, fields } }];
  });

const offTheBaseline = check<OfFields>({
  code: "off-baseline",
  severity: "note",
  family: "hardware",
  title: "A device is administered otherwise than the site's gear",
  why: "Whoever comes next expects every device alike; what differs without a reason is forgotten on it.",
  reads: ["site", "device"],
  find: (index) => withFields(index, offBaseline),
  describe: ({ device, fields }, index) => {
    const own = index.plan.device.get(device);
    const { baseline } = index.plan.site;
    const parts = fields.map(
      (field) =>
        `${word(field)} ${(own === undefined ? "" : baselineText(own.baseline, field)) || "not decided"}, ` +
        `the site's gear ${baselineText(baseline, field)}`,
    );
    return `${nameOf(index, "device", device)}: ${parts.join("; ")}.`;
  },
  repairs: ({ device, fields }, index): Repair[] => [
    {
      label: `Administer ${nameOf(index, "device", device)} as the site's gear`,
      planner: "to-baseline",
      args: { devices: [device], fields: [...fields] },
      edit: (edits) => toBaseline({ edits }, [device], fields),
    },
  ],
});

const beyondTheDevice = check<OfFields>({
  code: "baseline-beyond-device",
  severity: "note",
  family: "hardware",
  title: "A device can't do all that the site decided for its gear",
  why: "It is left out on its sheet and in the runbook; say so to whoever asked for it, or replace the device.",
  reads: ["site", "device"],
  find: (index) => withFields(index, beyondDevice),
  describe: ({ device, fields }, index) => {
    const { baseline } = index.plan.site;
    const parts = fields.map((field) => `${word(field)} (${baselineText(baseline, field)})`);
    return `${nameOf(index, "device", device)} does not do: ${parts.join("; ")}.`;
  },
  repairs: () => [],
});

/** Ways in that show everybody on the way what is typed, the password with it. */
const CLEAR: readonly WayIn[] = ["http", "telnet", "snmpV2"];
const clearWays = ({ baseline }: Device): WayIn[] => CLEAR.filter((way) => baseline.waysIn.includes(way));

const clearWayIn = check<OnDevice>({
  code: "clear-way-in",
  severity: "warn",
  family: "hardware",
  title: "Administrators sign in where others can read along",
  why: "Name and password cross the network as they are typed; whoever reads them once has the device.",
  reads: ["device"],
  find: ({ plan }) =>
    [...plan.device.values()].flatMap((device) =>
      isAdministered(device) && clearWays(device).length > 0
        ? [{ subjects: onDevice(device), data: { device: device.id } }]
        : [],
    ),
  describe: ({ device }, index) => {
    const own = index.plan.device.get(device);
    const ways = own === undefined ? [] : clearWays(own).map((way) => WAY_IN_WORDS[way]);
    return `${nameOf(index, "device", device)} is administered by ${listed(ways)}, which hides nothing.`;
  },
  repairs: ({ device }, index): Repair[] => {
    const own = index.plan.device.get(device);
    const safe = own?.baseline.waysIn.filter((way) => !CLEAR.includes(way)) ?? [];
    return own === undefined || safe.length === 0
      ? []
      : [
          {
            label: `Switch ${listed(clearWays(own).map((way) => WAY_IN_WORDS[way]))} off on ${own.name}`,
            planner: "write-gear",
            args: { row: device, column: "waysIn" },
            edit: (edits) =>
              edits.patch("device", device, {
                baseline: { ...edits.need("device", device).baseline, waysIn: safe },
              }),
          },
        ];
  },
});

interface Unheard extends OnDevice {
  readonly asks: GearAsks;
  readonly sentence: string;
}

const ASKED: readonly (readonly [GearAsks, "nameServers" | "timeServers" | "logTo", string])[] = [
  ["names", "nameServers", "asks for names"],
  ["time", "timeServers", "asks for the time"],
  ["log", "logTo", "sends its log to"],
];

/** The first address that lies in a planned subnet and that nobody has; undefined where there is none. */
const nobodys = (index: PlanIndex, addresses: readonly Address[]): Address | undefined =>
  addresses.find(
    (address) => index.holdersOf(address).length === 0 && segmentHolding(index.plan, address) !== null,
  );

/** Whether one of the hosts that a device asks for itself answers; null where none of them is judged here. */
function heard(run: ProbeRun, device: Device, [asks, field]: (typeof ASKED)[number]): ServerReached | null {
  const addresses = device.baseline[field];
  const hosts = addresses.flatMap((address) => run.index.groups("hostsByAddress").get(address) ?? []);
  // What is outside, or gear itself, is not judged here.
  return hosts.length === 0 || hosts.length < addresses.length
    ? null
    : gearServerReached(
        run,
        device,
        asks,
        hosts.map(({ id }) => id),
      );
}

/** Why a device is not heard by any of the servers that it asks for itself; null where it is, or asks none. */
function unheard(index: PlanIndex, device: Device, asked: (typeof ASKED)[number]): string | null {
  const empty = nobodys(index, device.baseline[asked[1]]);
  if (empty !== undefined)
    return `${device.name} ${asked[2]} ${formatAddress(empty)}, and nobody in the plan has that address.`;
  const reached = heard(askedOn(index), device, asked);
  return reached === null || "server" in reached ? null : reached.cause.sentence;
}

const gearServerSilent = check<Unheard>({
  code: "gear-server-unreachable",
  severity: "warn",
  family: "hardware",
  title: "A device does not reach the servers that it asks for itself",
  why:
    "Without the time certificates fail and logs can't be laid side by side; " +
    "a log that arrives nowhere tells nobody.",
  reads: [...ASKED_READS, "rule"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      isAdministered(device)
        ? ASKED.flatMap((asked): Found<Unheard>[] => {
            const sentence = unheard(index, device, asked);
            return sentence === null
              ? []
              : [
                  {
                    subjects: onDevice(device),
                    data: { device: device.id, asks: asked[0], sentence },
                    apart: asked[0],
                  },
                ];
          })
        : [],
    ),
  describe: ({ sentence }) => sentence,
  repairs: ({ device, asks }, index) => {
    const own = index.plan.device.get(device);
    const asked = ASKED.find(([name]) => name === asks);
    return own === undefined || asked === undefined || nobodys(index, own.baseline[asked[1]]) !== undefined
      ? []
      : repairsFor(index, (run) => heard(run, own, asked));
  },
});

interface Twice {
  readonly devices: readonly string[];
  readonly serial: string;
}

const serialTwice = check<Twice>({
  code: "serial-twice",
  severity: "warn",
  family: "hardware",
  title: "Two devices have one serial number",
  why: "Support, licences and the inventory go by it: one of the two was read or typed wrong.",
  reads: ["device"],
  find: ({ plan }) => {
    const found = new Map<string, string[]>();
    for (const { id, serial, model } of plan.device.values()) {
      if (serial === "") continue;
      const key = `${model}\n${serial.toLowerCase()}`;
      putInto(found, key, id);
    }
    return [...found].flatMap(([key, devices]) =>
      devices.length < 2
        ? []
        : [
            {
              subjects: devices.map((id) => ({ kind: "device" as const, id })),
              data: { devices, serial: key.slice(key.indexOf("\n") + 1) },
            },
          ],
    );
  },
  describe: ({ devices }, index) =>
    `${listed(devices.map((id) => nameOf(index, "device", id)))} have the serial number ` +
    `${index.plan.device.get(devices[0] ?? "")?.serial ?? ""}.`,
  repairs: () => [],
});

interface Ended extends OnDevice {
  readonly until: string;
}

const licenceEnded = check<Ended>({
  code: "licence-ended",
  severity: "warn",
  family: "hardware",
  title: "A device's licence has run out",
  why: "What it paid for may stop at once or at the next restart, and software no longer comes.",
  reads: ["device"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      device.licenceUntil === null || index.today === null || device.licenceUntil >= index.today
        ? []
        : [{ subjects: onDevice(device), data: { device: device.id, until: device.licenceUntil } }],
    ),
  describe: ({ device, until }, index) =>
    `The licence of ${nameOf(index, "device", device)} ended on ${until}; renew it, or clear the day.`,
  repairs: () => [],
});

const windowWithoutConsent = check<{ readonly window: string }>({
  code: "window-without-consent",
  severity: "warn",
  family: "survey",
  title: "Work in a plant with neither a permit nor anybody's consent",
  why:
    "A network change can move or stop a machine: permit, lock-out and the process owner's consent come " +
    "first, by the rules of the plant.",
  reads: ["site", "window"],
  find: ({ plan }) =>
    plan.site.kind !== "industrial"
      ? []
      : [...plan.window.values()].flatMap(({ id, permit, consent }) =>
          permit === "" && consent === ""
            ? [{ subjects: [{ kind: "window" as const, id }], data: { window: id } }]
            : [],
        ),
  describe: ({ window }, index) =>
    `${nameOf(index, "window", window)} says neither which permit it needs nor who agrees to it; ` +
    "write one of them on the Runbook, under Windows.",
  repairs: () => [],
});

/** What can be wrong in how gear is administered, in what it is, and in when work may stop others. */
export const BASELINE_CHECKS = [
  offTheBaseline,
  beyondTheDevice,
  clearWayIn,
  gearServerSilent,
  serialTwice,
  licenceEnded,
  windowWithoutConsent,
] as const;
