import { formatAddress } from "../address";
import { firstAddressOf, nameOf, type Device, type Host, type PlanIndex } from "../plan";
import { listed } from "../repairs";
import { opensText, type Card } from "./card";
import { firstKey, setUpDevices } from "./found";
import type { Operation } from "./operations";
import type { Taken } from "./order";
import type { Value } from "./words";

const CAUTIONS = {
  cabinet:
    "In cabinets and near mains: isolate first; fixed wiring is for licensed people under the local code.",
  fibre: "Never look into a fibre or an optic, lit or not.",
  software:
    "The version for this very model and hardware revision; by way of the versions that its maker asks for " +
    "in between; no power cut meanwhile; a copy of its settings first: they may be lost.",
  machine:
    "A network change can move or stop a machine: permit, lock-out and the process owner's consent first; " +
    "emergency stop and safety functions never depend on this.",
} as const;

export function cautionOf(index: PlanIndex, { page, ports }: Operation, cuts: readonly Host[]): string {
  const { kind } = index.plan.site;
  if (page === "power") return CAUTIONS.cabinet;
  if (page === "software")
    return kind === "industrial" && cuts.length > 0
      ? `${CAUTIONS.software} ${CAUTIONS.machine}`
      : CAUTIONS.software;
  const isProcess = kind === "industrial" && (page === "trunk" || page === "ports" || cuts.length > 0);
  if (isProcess) return CAUTIONS.machine;
  return ports.some(({ medium }) => medium === "fibre") ? CAUTIONS.fibre : "";
}

/** A move of the laptop in words: what becomes of cables that are pulled for it, too. */
export function moveWords(
  index: PlanIndex,
  from: string | null,
  to: string,
): { readonly title: string; readonly values: readonly Value[]; readonly why: string } {
  const isCabled = (port: string | null) => port !== null && index.linkAt(port) !== undefined;
  const name = nameOf(index, "port", to);
  const put: Value[] = isCabled(from)
    ? [["Before", `put the cable back into ${nameOf(index, "port", from ?? "")}`]]
    : [];
  if (!isCabled(to))
    return { title: `${from === null ? "Plug the laptop into" : "Move to"} ${name}`, values: put, why: "" };
  return {
    title: `Pull the cable out of ${name} and plug the laptop in there`,
    values: put,
    why:
      "From no free port is the device reached. What the cable carried is cut meanwhile; gear that it " +
      "powered needs a supply of its own.",
  };
}

interface Stands {
  readonly before: Taken["before"];
  readonly after: Taken["after"];
  readonly card: Card | null;
  readonly seen: Card | null;
}

/** Why an operation comes where it does, as far as there is something to say. */
export function whyHere(
  index: PlanIndex,
  device: Device,
  { page }: Operation,
  { before, after, card, seen }: Stands,
): string {
  const { name } = device;
  if (before === null)
    return (
      `Nothing on the network gets to ${name} here: take the console cable, or reset it, and it is as it ` +
      "came out of the box."
    );
  if (after === null)
    return `After it nothing on the network gets to ${name}: have the console cable in before, and save by it.`;
  if (after === "next")
    return (
      `The far end first: ${name} is out of reach for this one step, and the next brings it back. ` +
      "Turned round, it would stay out of reach."
    );
  if (before !== "by hand" && after.port !== before.port)
    return (
      `It cuts the laptop off where it is: afterwards ${name} is reached at ` +
      `${nameOf(index, "port", after.port)}, and answers at ${seen === null ? "nothing" : opensText(seen)}.`
    );
  if (card !== null && seen !== null && card.opens !== seen.opens)
    return `From now on ${name} answers at ${opensText(seen)}: the laptop's address changes with it.`;
  if (page === "software")
    return "Before anything else is set on it: what was set before may be lost by it, or mean something else.";
  if (page === "ownServer")
    return "Nothing else is set before: on a cable to the others it would give them addresses of its own.";
  return page === "power"
    ? [oneByOne(index, device), ownServer(index, device)].filter(Boolean).join(" ")
    : "";
}

/** What gear does that is a DHCP server out of the box; empty for other gear. */
const ownServer = (index: PlanIndex, device: Device): string =>
  firstAddressOf(index, device)?.gives === true
    ? "It is a DHCP server out of the box: whoever hangs on it gets an address of its own until that is off."
    : "";

/** Why gear that comes with one first address is powered one after the other; empty for gear that is alone. */
function oneByOne(index: PlanIndex, device: Device): string {
  const first = firstAddressOf(index, device);
  const others = setUpDevices(index).filter(
    (other) => other.id !== device.id && firstKey(index, other) === firstKey(index, device),
  );
  if (others.length === 0) return "";
  return first === null
    ? "All of its model have the same first address: power one after the other."
    : `${listed(others.map((other) => other.name))} ${others.length === 1 ? "has" : "have"} the same first ` +
        `address, ${formatAddress(first.address)}: power one after the other.`;
}

export function backOf(index: PlanIndex, { device, page }: Operation, seen: Card | "next" | null): string {
  if (page === "power") return "Take its power away again.";
  if (page === "software")
    return "Not by entering what was: only by the version before, where the device takes it. Have it at hand.";
  const name = nameOf(index, "device", device);
  if (seen === "next")
    return `Do not save yet: a restart of ${name} brings back what was. Or do the next step, and it answers.`;
  return seen === null
    ? `Only by the console of ${name}, or by a restart before it is saved.`
    : `${nameOf(index, "port", seen.port)} still gets to ${name}: open ${opensText(seen)} and enter what was ` +
        "before. Until it is saved, a restart brings it back, too.";
}
