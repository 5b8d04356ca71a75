import { CABLE_WORDS, linkSpeed, MEDIUM_WORDS, reachOf } from "../cabling";
import { byNaturalText, must } from "../kernel";
import type { Device, Link, PlanIndex, Port } from "../plan";

/** A cable with what it joins. */
export interface CableRow {
  readonly link: Link;
  readonly from: Device;
  readonly fromPort: Port;
  readonly to: Device;
  readonly toPort: Port;
  /** Mbit/s that both ends can. */ readonly mbps: number;
  /** How far it may reach at that speed in m; null when the kind of cable is not known. */ readonly reachM:
    number | null;
}

/** All cables between gear by the names of their first ends, as a person counts. */
export function cablesInOrder({ plan }: PlanIndex): CableRow[] {
  const rows = [...plan.link.values()].map((link): CableRow => {
    const end = (id: string) => {
      const port = must(plan.port.get(id), "a cable's port");
      return { port, device: must(plan.device.get(port.device), "a port's device") };
    };
    const [first, last] = [end(link.a), end(link.b)];
    return {
      link,
      from: first.device,
      fromPort: first.port,
      to: last.device,
      toPort: last.port,
      mbps: linkSpeed(first.port, last.port),
      reachM: reachOf(link, first.port, last.port),
    };
  });
  return rows.sort(
    (x, y) =>
      byNaturalText(x.from.name, y.from.name) ||
      x.fromPort.position - y.fromPort.position ||
      byNaturalText(x.link.id, y.link.id),
  );
}

const opticText = (port: Port): string => (port.optic === "none" ? "" : port.optic);

/** The cable schedule as a table of texts, heads first. */
export function cableScheduleTable(index: PlanIndex): string[][] {
  const heads = [
    "Label",
    "From",
    "Place",
    "Port",
    "Optic",
    "To",
    "Place",
    "Port",
    "Optic",
    "Medium",
    "Cable",
    "Length m",
    "Speed Mbit/s",
    "Patch panel",
    "Socket",
  ];
  return [
    heads,
    ...cablesInOrder(index).map(({ link, from, fromPort, to, toPort, mbps }) => [
      link.label,
      from.name,
      from.place,
      fromPort.label,
      opticText(fromPort),
      to.name,
      to.place,
      toPort.label,
      opticText(toPort),
      MEDIUM_WORDS[link.medium],
      link.cable === "unknown" ? "" : CABLE_WORDS[link.cable],
      link.lengthCm === null ? "" : String(link.lengthCm / 100),
      String(mbps),
      link.panel,
      link.socket,
    ]),
  ];
}
