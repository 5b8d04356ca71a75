import { byNaturalText } from "../kernel";
import {
  hasRadios,
  BANDS,
  ssidsOf,
  type Band,
  type Device,
  type PlanIndex,
  type Port,
  type Radio,
  type Ssid,
} from "../plan";
import { accessPointRole } from "../planners";
import { portCarries } from "../forwarding";
import { channelBlock, channelsOverlap, HEARING } from "../wireless";

/**
 * An access point with its radios, whom it hears, what it announces, and what its port has to carry at the
 * least.
 */
export interface PointRow {
  readonly device: Device;
  readonly radios: readonly Radio[];
  /** Those it hears, each with the bands in which the two overlap. */
  readonly hears: readonly {
    readonly device: Device;
    readonly entered: boolean;
    readonly clashes: readonly Band[];
  }[];
  readonly ssids: readonly Ssid[];
  /** The port of the gear it is plugged into; null while it is not. */
  readonly uplink: Port | null;
  readonly needs: { readonly untagged: number | null; readonly tagged: readonly number[] };
  readonly missing: readonly number[];
  readonly needless: readonly number[];
}

const blockOf = (radio: Radio | undefined): readonly number[] =>
  radio === undefined || !radio.enabled || radio.channel === null
    ? []
    : (channelBlock(radio.band, radio.channel, radio.widthMhz) ?? [radio.channel]);

/** The access points by name, as a person counts. */
export function pointRows(index: PlanIndex): PointRow[] {
  const hearing = index.derived(HEARING);
  const carries = portCarries(index);
  const radiosOf = (id: string) =>
    [...(index.groups("radiosByDevice").get(id) ?? [])].sort((a, b) => Number(a.band) - Number(b.band));
  return [...index.plan.device.values()]
    .filter(hasRadios)
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((device): PointRow => {
      const radios = radiosOf(device.id);
      const uplink = index.portsOf(device.id).flatMap((own) => index.peerOf(own.id) ?? [])[0] ?? null;
      const carry = uplink === null ? undefined : carries.get(uplink.id);
      const hears = [...(hearing.get(device.id) ?? [])]
        .flatMap((id) => index.plan.device.get(id) ?? [])
        .sort((a, b) => byNaturalText(a.name, b.name));
      return {
        device,
        radios,
        uplink,
        ssids: ssidsOf(index, device),
        needs: accessPointRole(index, device.domain, device),
        missing: carry?.missing ?? [],
        needless: carry?.needless ?? [],
        hears: hears.map((other) => ({
          device: other,
          entered: device.hears.includes(other.id) || other.hears.includes(device.id),
          clashes: BANDS.filter((band) =>
            channelsOverlap(
              band,
              blockOf(radios.find((radio) => radio.band === band)),
              blockOf(radiosOf(other.id).find((radio) => radio.band === band)),
            ),
          ),
        })),
      };
    });
}
