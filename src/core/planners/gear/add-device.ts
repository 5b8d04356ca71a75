import {
  BLANK_DEVICE,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  isGateway,
  type Cable,
  type Device,
  type Draft,
  type Port,
} from "../../plan";
import { giveGateway } from "../segments/add-segment";
import { mainDomain } from "../addressing/conventions";
import { modelsOf, type DeviceModel } from "../../catalogue";
import { addRadios } from "../wireless/radios";
import type { Bench, IdSource, Refusal } from "../planner";

export interface AddDevice {
  readonly model: string;
  readonly name: string;
  readonly place: string;
}

function addPorts(draft: Draft, ids: IdSource, device: string, model: DeviceModel): Port[] {
  const ports: Port[] = [];
  let printed = 0;
  for (const run of model.runs) {
    for (let i = 0; i < run.count; i += 1) {
      if (run.prefix === "") printed += 1;
      ports.push(
        draft.put("port", {
          ...BLANK_PORT,
          id: ids(),
          device,
          label: run.prefix === "" ? String(printed) : `${run.prefix}${i + 1}`,
          softwareName: `${run.soft}${i}`,
          position: ports.length + 1,
          medium: run.medium,
          speedMbps: run.speedMbps,
          poeMw: run.poeMw,
        }),
      );
    }
  }
  return ports;
}

/**
 * A device of a generic model with its ports. A gateway also gets its line and a leg in every segment that
 * has no gateway.
 */
export function addDevice({ draft, ids }: Bench, wanted: AddDevice): Refusal {
  const model = modelsOf(draft.plan).find((m) => m.id === wanted.model);
  const name = wanted.name.trim();
  if (model === undefined) return "Choose what kind of device it is.";
  if (name === "" || name.length > 80) return "Give the device a name of 1 to 80 characters.";
  if (draft.all("device").some((d) => d.name.toLowerCase() === name.toLowerCase()))
    return `There is a device called ${name} already; give this one another name.`;
  const domain = domainFor(draft, ids);
  const { device, ports } = placeDevice(draft, ids, model, {
    name,
    place: wanted.place.trim().slice(0, 120),
    domain,
  });
  if (isGateway(model)) equipGateway(draft, ids, device.id, ports[0]);
  return null;
}

/** The domain that new gear joins; the first of a new site. */
export const domainFor = (draft: Draft, ids: IdSource): string =>
  mainDomain(draft.plan) ?? draft.all("domain")[0]?.id ?? draft.put("domain", { id: ids(), name: "Main" }).id;

/** A device of a model with its ports, an access point with its radios, and nothing else. */
export function placeDevice(
  draft: Draft,
  ids: IdSource,
  model: DeviceModel,
  { name, place, domain }: { readonly name: string; readonly place: string; readonly domain: string },
): { device: Device; ports: Port[] } {
  const device = draft.put("device", {
    ...BLANK_DEVICE,
    id: ids(),
    kind: model.kind,
    bridging: model.bridging,
    name,
    model: model.model,
    domain: model.bridging === "plain" ? null : domain,
    place,
    abilities: model.abilities,
    heightUnits: model.heightUnits,
    poeBudgetMw: model.poeBudgetMw,
    poeOneLostMw: model.poeOneLostMw,
  });
  const ports = addPorts(draft, ids, device.id, model);
  if (model.kind === "accessPoint") addRadios(draft, ids, device.id);
  return { device, ports };
}

function equipGateway(draft: Draft, ids: IdSource, device: string, linePort: Port | undefined): void {
  const line = draft.all("line")[0] ?? draft.put("line", { ...BLANK_LINE, id: ids(), name: "Internet line" });
  const taken = draft.all("interface").some((leg) => leg.line === line.id);
  if (!taken && linePort !== undefined) {
    draft.put("interface", {
      id: ids(),
      device,
      port: linePort.id,
      segment: null,
      line: line.id,
      name: line.name,
      mac: null,
      addresses4: [],
      addresses6: [],
      relayTo: null,
      translates: "asUsual",
    });
  }
  for (const segment of draft.all("segment"))
    if (segment.gatewayInterface === null) giveGateway(draft, ids, segment.id, device);
}

/** Joins two free ports by a cable; what the ports carry stays as it is. */
export function connectPorts({ draft, ids }: Bench, a: string, b: string, cable: Cable = "unknown"): Refusal {
  const [first, second] = [draft.get("port", a), draft.get("port", b)];
  if (first === undefined || second === undefined) return "Choose a port at each end.";
  if (a === b) return "A cable has two ends; choose another port.";
  for (const port of [first, second]) {
    const used = draft.all("link").some((link) => link.a === port.id || link.b === port.id);
    const name = `${draft.need("device", port.device).name} port ${port.label}`;
    if (used) return `${name} has a cable already; unplug it first.`;
    if (draft.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === port.id))
      return `A device is plugged into ${name} already; unplug it first.`;
  }
  draft.put("link", { ...BLANK_LINK, id: ids(), a, b, medium: mediumBetween(first, second), cable });
  return null;
}

/** Fibre where both ports take it, copper otherwise. */
export const mediumBetween = (a: Port, b: Port): "copper" | "fibre" | "directAttach" => {
  if (a.medium === "directAttach" && b.medium === "directAttach") return "directAttach";
  if ([a, b].every((port) => port.medium === "fibre" || port.medium === "directAttach")) return "fibre";
  return "copper";
};
