import { classText } from "../policy";
import { poeStandard } from "../power";
import {
  nameOf,
  segmentsOfSsid,
  signInVids,
  ssidsOf,
  wirelessProfile,
  type Device,
  type PlanIndex,
  type Port,
  type Segment,
  type Ssid,
} from "../plan";
import { voicePolicyText } from "../planners";
import { pluggedIn } from "../sheets";
import { modeOf } from "../fabric";
import { SECURITY_FACTS } from "../wireless";
import type { SheetPort, SheetSsid, SheetVlan } from "./sheet-types";

/**
 * The VLANs that have to exist on a device: those of its ports, its own addresses and its wireless names, and
 * those on its own list.
 */
export function vlansOf(index: PlanIndex, device: Device): SheetVlan[] {
  if (device.bridging !== "vlan") return [];
  const vids = new Set<number>(
    index
      .portsOf(device.id)
      .flatMap((port) => [port.pvid ?? [], port.untagged, port.tagged, signInVids(index, port)].flat()),
  );
  const add = (segment: Segment | undefined) => {
    const vid = segment === undefined ? null : index.vidOf(segment);
    if (vid !== null) vids.add(vid);
  };
  for (const leg of index.interfacesOf(device.id))
    if (leg.port === null) add(index.plan.segment.get(leg.segment ?? ""));
  for (const ssid of ssidsOf(index, device)) segmentsOfSsid(index, ssid).forEach(add);
  return [...vids]
    .sort((a, b) => a - b)
    .map((vid) => {
      const vlan = index.vlanOf(device.domain, vid);
      const name = vlan?.name ?? `VLAN ${vid}`;
      return {
        vid,
        name: device.vlanNameLimit === null ? name : name.slice(0, device.vlanNameLimit),
        segment: index.segmentOn(device.domain, vid)?.name ?? "",
        purpose: vlan?.purpose ?? "segment",
        marks: classText(index.segmentOn(device.domain, vid)?.trafficClass ?? "bestEffort"),
      };
    });
}

/** A port as it is entered, and what is plugged in. */
export function sheetPort(index: PlanIndex, device: Device, port: Port): SheetPort {
  const routed = (index.groups("interfacesByPort").get(port.id)?.length ?? 0) > 0;
  return {
    label: port.label,
    softwareName: port.softwareName,
    pluggedIn: pluggedIn(index, port),
    mode: routed ? "routed" : switchedMode(device, port),
    enabled: port.enabled,
    pvid: port.pvid,
    untagged: port.untagged,
    tagged: port.tagged,
    admit: port.admit,
    ingressFilter: port.ingressFilter,
    speedMbps: port.speedMbps,
    poe: port.poeMw === 0 ? "" : poeStandard(port.poeMw),
    optic: port.optic === "none" ? "" : port.optic,
    lag: port.lag === null ? "" : nameOf(index, "lag", port.lag).replace(`${device.name} `, ""),
    guards: {
      ...port.guards,
      profile: port.guards.profile === null ? "" : nameOf(index, "signIn", port.guards.profile),
    },
    voicePolicy: voicePolicyText(port.voicePolicy),
    note: port.note,
    routed,
  };
}

const switchedMode = (device: Device, port: Port): string =>
  device.bridging === "vlan" ? modeOf(port) : "plain";

/** A wireless name as it is entered at an access point. */
export function sheetSsid(index: PlanIndex, ssid: Ssid): SheetSsid {
  const segments = segmentsOfSsid(index, ssid);
  return {
    name: ssid.name,
    segments: segments.map((segment) => segment.name),
    vids: segments.flatMap((segment) => index.vidOf(segment) ?? []),
    security: SECURITY_FACTS[ssid.security].words,
    profile: SECURITY_FACTS[ssid.security].signsIn ? (wirelessProfile(index, ssid)?.name ?? "") : "",
    hidden: ssid.hidden,
    isolation: ssid.isolation,
    bands: ssid.bands,
  };
}
