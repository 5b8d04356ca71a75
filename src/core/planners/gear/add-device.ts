import {
  hasRadios,
  usualFilter,
  BLANK_DEVICE,
  isAdministered,
  NO_BASELINE,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  isGateway,
  type Cable,
  type Device,
  type PlanEdits,
  type Port,
} from "../../plan";
import { giveGateway } from "../segments/add-segment";
import { mainDomain } from "../addressing/conventions";
import { modelsOf, type DeviceModel } from "../../catalogue";
import { addRadios } from "../wireless/radios";
import { baselineFor } from "./baseline";
import type { EditContext, IdSource, Refusal } from "../planner";

export interface AddDevice {
  readonly model: string;
  readonly name: string;
  readonly place: string;
}

function addPorts(edits: PlanEdits, ids: IdSource, device: string, model: DeviceModel): Port[] {
  const ports: Port[] = [];
  let printed = 0;
  for (const run of model.runs) {
    for (let i = 0; i < run.count; i += 1) {
      if (run.prefix === "") printed += 1;
      ports.push(
        edits.put("port", {
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
export function addDevice({ edits, ids }: EditContext, wanted: AddDevice): Refusal {
  const model = modelsOf(edits.plan).find((m) => m.id === wanted.model);
  const name = wanted.name.trim();
  if (model === undefined) return "Choose what kind of device it is.";
  if (name === "" || name.length > 80) return "Give the device a name of 1 to 80 characters.";
  if (edits.all("device").some((d) => d.name.toLowerCase() === name.toLowerCase()))
    return `There is a device called ${name} already; give this one another name.`;
  const domain = domainFor(edits, ids);
  const { device, ports } = placeDevice(edits, ids, model, {
    name,
    place: wanted.place.trim().slice(0, 120),
    domain,
  });
  if (isGateway(model)) equipGateway(edits, ids, device.id, ports[0]);
  return null;
}

/** The domain that new gear joins; the first of a new site. */
export const domainFor = (edits: PlanEdits, ids: IdSource): string =>
  mainDomain(edits.plan) ?? edits.all("domain")[0]?.id ?? edits.put("domain", { id: ids(), name: "Main" }).id;

/** A device of a model with its ports, an access point with its radios, and nothing else. */
export function placeDevice(
  edits: PlanEdits,
  ids: IdSource,
  model: DeviceModel,
  { name, place, domain }: { readonly name: string; readonly place: string; readonly domain: string },
): { device: Device; ports: Port[] } {
  const device = edits.put("device", {
    ...BLANK_DEVICE,
    id: ids(),
    kind: model.kind,
    bridging: model.bridging,
    filter: usualFilter(model),
    baseline: isAdministered(model) ? baselineFor(edits.plan.site.baseline, model) : NO_BASELINE,
    name,
    model: model.model,
    domain: model.bridging === "plain" ? null : domain,
    place,
    abilities: model.abilities,
    heightUnits: model.heightUnits,
    poeBudgetMw: model.poeBudgetMw,
    poeOneLostMw: model.poeOneLostMw,
  });
  const ports = addPorts(edits, ids, device.id, model);
  if (hasRadios(model)) addRadios(edits, ids, device.id);
  return { device, ports };
}

function equipGateway(edits: PlanEdits, ids: IdSource, device: string, linePort: Port | undefined): void {
  const line = edits.all("line")[0] ?? edits.put("line", { ...BLANK_LINE, id: ids(), name: "Internet line" });
  const taken = edits.all("interface").some((leg) => leg.line === line.id);
  if (!taken && linePort !== undefined) {
    edits.put("interface", {
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
  for (const segment of edits.all("segment"))
    if (segment.gatewayInterface === null) giveGateway(edits, ids, segment.id, device);
}

/** Joins two free ports by a cable; what the ports carry stays as it is. */
export function connectPorts(
  { edits, ids }: EditContext,
  a: string,
  b: string,
  cable: Cable = "unknown",
): Refusal {
  const [first, second] = [edits.get("port", a), edits.get("port", b)];
  if (first === undefined || second === undefined) return "Choose a port at each end.";
  if (a === b) return "A cable has two ends; choose another port.";
  for (const port of [first, second]) {
    const used = edits.all("link").some((link) => link.a === port.id || link.b === port.id);
    const name = `${edits.need("device", port.device).name} port ${port.label}`;
    if (used) return `${name} has a cable already; unplug it first.`;
    if (edits.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === port.id))
      return `A device is plugged into ${name} already; unplug it first.`;
  }
  edits.put("link", { ...BLANK_LINK, id: ids(), a, b, medium: mediumBetween(first, second), cable });
  return null;
}

/** Fibre where both ports take it, copper otherwise. */
export const mediumBetween = (a: Port, b: Port): "copper" | "fibre" | "directAttach" => {
  if (a.medium === "directAttach" && b.medium === "directAttach") return "directAttach";
  if ([a, b].every((port) => port.medium === "fibre" || port.medium === "directAttach")) return "fibre";
  return "copper";
};
