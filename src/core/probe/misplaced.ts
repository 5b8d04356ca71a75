import type { Repair } from "../repairs";
import { nameOf, PlanIndex, type Host } from "../plan";
import type { ProbeRun } from "./run";
import { memberRepairs } from "./deliver";
import { wantedVid, type Started } from "./start";
import type { Cause } from "./step";

/** Its wireless name leads elsewhere. */
function onWrongName(
  index: PlanIndex,
  ssid: string,
  host: Host,
  { vid, belongs }: { readonly vid: number; readonly belongs: string },
): Cause {
  const name = nameOf(index, "ssid", ssid);
  const segment = host.segment ?? "";
  return {
    sentence: `${host.name} belongs in ${belongs}, and ${name} leads into VLAN ${vid}.`,
    subjects: [
      { kind: "ssid", id: ssid },
      { kind: "host", id: host.id },
    ],
    repairs: [
      {
        label: `Let ${name} lead into ${nameOf(index, "segment", segment)}`,
        planner: "edit-ssid",
        args: { ssid, segment },
        edit: (edits) => edits.patch("ssid", ssid, { segment }),
      },
    ],
  };
}

/**
 * A host that is in another VLAN than its segment's: its port, its own tag or its wireless name puts it
 * there. Null when it is where it belongs.
 */
// eslint-disable-next-line complexity -- plugged in or on the air, known or not
export function misplaced({ index }: ProbeRun, { host, party, vid }: Started): Cause | null {
  const wanted = wantedVid(index, host);
  if (host?.segment === null || host === null || wanted === null || wanted === vid) return null;
  const { segment } = host;
  const belongs = `${nameOf(index, "segment", segment)} (${wanted})`;
  if (party.place.at === "inside" && party.place.ssid !== null)
    return onWrongName(index, party.place.ssid, host, { vid, belongs });
  const port = party.place.at === "inside" ? undefined : index.plan.port.get(party.place.port);
  if (port === undefined || index.plan.device.get(port.device)?.bridging !== "vlan") return null;
  const number = index.plan.vlan.get(index.plan.segment.get(segment)?.vlan ?? "")?.vid ?? null;
  const tags: Repair[] =
    number !== null && host.tag === null && port.tagged.includes(number)
      ? [
          {
            label: `Let ${host.name} tag what it sends with ${wanted}`,
            planner: "edit-host",
            args: { host: host.id, tag: wanted },
            edit: (edits) => edits.patch("host", host.id, { tag: number }),
          },
        ]
      : [];
  return {
    sentence: `${nameOf(index, "port", port.id)} puts ${host.name} into VLAN ${vid}; it belongs in ${belongs}.`,
    subjects: [
      { kind: "port", id: port.id },
      { kind: "host", id: host.id },
    ],
    repairs: [...tags, ...memberRepairs(index, port, host.tag, wanted)],
  };
}
