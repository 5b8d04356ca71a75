import { formatAddress, type Address } from "../../address";
import { byText } from "../../kernel";
import { nameOf, type PlanIndex } from "../../plan";
import { check, type Found } from "../check";
import type { Repair } from "../../repairs";

interface Serves {
  readonly gear: string;
}

export const secondRouterServes = check<Serves>({
  code: "second-router-serves",
  severity: "warn",
  family: "survey",
  title: "Gear that is kept runs a DHCP server of its own",
  why:
    "A client takes the first answer. With a second router " +
    "still serving, some get a gateway that leads nowhere.",
  reads: ["gear", "scope"],
  find: (index): Found<Serves>[] =>
    [...index.plan.gear.values()]
      // A provider's box in front serves its own inside, where only the gateway is; what became a device has
      // its scopes in the plan.
      .filter(
        (gear) =>
          gear.fate === "keep" &&
          gear.dhcp === "on" &&
          gear.kind !== "providerBox" &&
          ![...index.plan.scope.values()].some(
            (scope) => scope.serverDevice === gear.device && gear.device !== null,
          ),
      )
      .map((gear) => ({ subjects: [{ kind: "gear" as const, id: gear.id }], data: { gear: gear.id } })),
  describe: ({ gear }, index) => `${nameOf(index, "gear", gear)} is kept and runs a DHCP server of its own.`,
  repairs: ({ gear }): Repair[] => [
    {
      label: "Switch its DHCP server off",
      planner: "edit-gear",
      args: { gear, dhcp: "off" },
      edit: (edits) => edits.patch("gear", gear, { dhcp: "off" }),
    },
    {
      label: "Mark for replacement",
      planner: "edit-gear",
      args: { gear, fate: "replace" },
      edit: (edits) => edits.patch("gear", gear, { fate: "replace" }),
    },
  ],
});

interface Ended {
  readonly of: "gear" | "device";
  readonly id: string;
  readonly until: string;
}

/** What stands between the site and the internet. */
const edge = (index: PlanIndex): { of: "gear" | "device"; id: string; until: string | null }[] => [
  ...[...index.plan.gear.values()]
    .filter((gear) => gear.facesInternet && gear.fate === "keep" && gear.device === null)
    .map((gear) => ({ of: "gear" as const, id: gear.id, until: gear.supportUntil })),
  ...[
    ...new Set([...index.plan.interface.values()].flatMap((leg) => (leg.line === null ? [] : [leg.device]))),
  ].map((id) => ({ of: "device" as const, id, until: index.plan.device.get(id)?.supportUntil ?? null })),
];

export const supportEnded = check<Ended>({
  code: "support-ended",
  severity: "warn",
  family: "survey",
  title: "Gear that faces the internet is past its support date",
  why: "Holes found in it from now on stay open, and it is what everybody out there can reach.",
  reads: ["gear", "device", "interface"],
  find: (index): Found<Ended>[] =>
    edge(index).flatMap(({ of, id, until }): Found<Ended>[] =>
      until === null || index.today === null || until >= index.today
        ? []
        : [{ subjects: [{ kind: of, id }], data: { of, id, until } }],
    ),
  describe: ({ of, id, until }, index) =>
    `${nameOf(index, of, id)} faces the internet, and its maker's support ended on ${until}.`,
  repairs: ({ of, id }): Repair[] =>
    of === "device"
      ? []
      : [
          {
            label: "Mark for replacement",
            planner: "edit-gear",
            args: { gear: id, fate: "replace" },
            edit: (edits) => edits.patch("gear", id, { fate: "replace" }),
          },
        ],
});

interface Taken {
  readonly gear: string;
  readonly address: Address;
  readonly holder: string | null;
  readonly other: string | null;
}

export const gearAddressTaken = check<Taken>({
  code: "gear-address-taken",
  severity: "warn",
  family: "survey",
  title: "Gear that stays has an address that somebody else has, too",
  why:
    "Two of a kind fresh from the box often have one address; " +
    "whichever answers first is configured, and the other is lost.",
  reads: ["gear", "host", "interface", "device"],
  find: (index): Found<Taken>[] => {
    const staying = [...index.plan.gear.values()]
      .filter((gear) => gear.fate === "keep")
      .sort((a, b) => byText(a.id, b.id));
    return staying.flatMap((gear, i) =>
      gear.addresses.flatMap((address): Found<Taken>[] => {
        const holder = index
          .holdersOf(address)
          .find((holder) => !("device" in holder) || holder.device !== gear.device);
        const other = staying.slice(i + 1).find((gear) => gear.addresses.includes(address));
        return holder === undefined && other === undefined
          ? []
          : [
              {
                subjects: [{ kind: "gear", id: gear.id }],
                data: { gear: gear.id, address, holder: holder?.id ?? null, other: other?.id ?? null },
              },
            ];
      }),
    );
  },
  describe: ({ gear, address, holder, other }, index) => {
    const own = holder ?? "";
    const holds = index.plan.host.has(own) ? nameOf(index, "host", own) : nameOf(index, "interface", own);
    const name = other === null ? holds : nameOf(index, "gear", other);
    return `${nameOf(index, "gear", gear)} has ${formatAddress(address)}, and so has ${name}.`;
  },
  repairs: ({ gear, address }): Repair[] => [
    {
      label: "Mark for replacement",
      planner: "edit-gear",
      args: { gear, fate: "replace" },
      edit: (edits) => edits.patch("gear", gear, { fate: "replace" }),
    },
    {
      label: `It will get another address than ${formatAddress(address)}`,
      planner: "edit-gear",
      args: { gear, address: formatAddress(address) },
      edit: (edits) => {
        const known = edits.need("gear", gear);
        edits.patch("gear", gear, { addresses: known.addresses.filter((other) => other !== address) });
      },
    },
  ],
});
