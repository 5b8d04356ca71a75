import { byText, putInto } from "../../kernel";
import {
  hasRadios,
  nameOf,
  offers,
  ssidsOf,
  type Band,
  type Device,
  type PlanIndex,
  type Ssid,
  type Radio,
  BANDS,
} from "../../plan";
import { BAND_WORDS } from "../../planners";
import { check, localCheck, type Found } from "../check";
import { counted, listed } from "../../repairs";
import { devicesTouched } from "../touched";

const MOST_NAMES = 4;

interface Airtime {
  readonly point: string;
  readonly band: Band;
  readonly count: number;
}

/** The radios of an access point that are on, each with the names that it announces. */
const announced = (index: PlanIndex, point: Device): { radio: Radio; names: Ssid[] }[] =>
  (index.groups("radiosByDevice").get(point.id) ?? [])
    .filter((radio) => radio.enabled)
    .sort((a, b) => BANDS.indexOf(a.band) - BANDS.indexOf(b.band))
    .map((radio) => ({
      radio,
      names: ssidsOf(index, point).filter((ssid) => ssid.bands.includes(radio.band)),
    }));

export const tooManySsids = localCheck<Airtime, "device">({
  code: "too-many-wireless-names",
  severity: "note",
  family: "wireless",
  title: "A radio announces more than four wireless names",
  why:
    "Each name is announced ten times a second at the slowest speed; with many " +
    "of them a good part of the air is gone before anybody has sent a word.",
  reads: ["device", "radio", "ssid", "segment", "vlan"],
  of: "device",
  touched: (index, change) => {
    if (change.kind === "device") return [];
    if (change.kind === "radio") return devicesTouched(index, change);
    return "all";
  },
  candidates: (index) => [...index.plan.device.values()].filter(hasRadios),
  findAt: (index, point): Found<Airtime>[] =>
    !hasRadios(point)
      ? []
      : announced(index, point)
          .filter(({ names }) => names.length > MOST_NAMES)
          .map(({ radio, names }) => ({
            subjects: [{ kind: "device", id: point.id }],
            apart: radio.band,
            data: { point: point.id, band: radio.band, count: names.length },
          })),
  describe: ({ point, band, count }, index) =>
    `${nameOf(index, "device", point)} announces ` +
    `${counted(count, "wireless name", "wireless names")} in ` +
    `${BAND_WORDS[band]}; more than ${MOST_NAMES} cost airtime.`,
  repairs: () => [],
});

interface Differing {
  readonly name: string;
  readonly ssids: readonly string[];
}

const SETTINGS = ["segment", "security", "hidden", "isolation"] as const;

export const ssidDiffers = check<Differing>({
  code: "wireless-name-differs",
  severity: "warn",
  family: "wireless",
  title: "One wireless name stands for two different networks",
  why:
    "A station takes one name for one network: it roams between " +
    "them, and every time its address or its key is wrong.",
  reads: ["ssid", "device", "segment", "vlan"],
  find: (index): Found<Differing>[] => {
    const byName = new Map<string, Ssid[]>();
    for (const ssid of index.plan.ssid.values()) putInto(byName, ssid.name, ssid);
    return [...byName].flatMap(([name, ssids]): Found<Differing>[] => {
      const ordered = ssids.sort((a, b) => byText(a.id, b.id));
      if (ordered.every((ssid) => SETTINGS.every((field) => ssid[field] === ordered[0]?.[field]))) return [];
      return [
        {
          subjects: ordered.map((ssid) => ({ kind: "ssid" as const, id: ssid.id })),
          data: { name, ssids: ordered.map((ssid) => ssid.id) },
        },
      ];
    });
  },
  describe: ({ name, ssids }, index) => {
    const of = ssids.flatMap((id) => index.plan.ssid.get(id) ?? []);
    const differing = SETTINGS.filter((field) => new Set(of.map((ssid) => ssid[field])).size > 1);
    const where = of.map(
      (ssid) =>
        [...index.plan.device.values()].find((device) => offers(index, device, ssid))?.name ??
        "no access point",
    );
    return (
      `${name} is there ${of.length} times, at ${listed(where)}, with different ` +
      `${listed(
        differing.map((field) => {
          if (field === "segment") return "segments";
          if (field === "hidden") return "visibility";
          return field;
        }),
      )}.`
    );
  },
  repairs: ({ ssids }, index) => {
    const [first, ...rest] = ssids.flatMap((id) => index.plan.ssid.get(id) ?? []);
    return first === undefined
      ? []
      : [
          {
            label: "Set all of them as the first is",
            planner: "equal-ssids",
            args: { ssids },
            edit: (edits) => {
              for (const ssid of rest)
                edits.patch("ssid", ssid.id, {
                  segment: first.segment,
                  moreSegments: first.moreSegments,
                  security: first.security,
                  hidden: first.hidden,
                  isolation: first.isolation,
                });
            },
          },
        ];
  },
});
