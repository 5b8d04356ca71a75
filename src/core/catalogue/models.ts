import {
  NO_ABILITIES,
  USUAL_ABILITIES,
  type Abilities,
  type Device,
  type OwnModel,
  type Plan,
} from "../plan";

export type PortRun = OwnModel["runs"][number];
/**
 * A generic model: what a new device of it begins with. `id` is a word of the catalogue, or the id of one of
 * the site's own.
 */
export interface DeviceModel {
  readonly id: string;
  readonly kind: Device["kind"];
  readonly bridging: Device["bridging"];
  readonly model: string;
  readonly poeBudgetMw: number;
  readonly poeOneLostMw: number | null;
  readonly heightUnits: number;
  readonly abilities: Abilities;
  readonly runs: readonly PortRun[];
}

const copper = (count: number, poeMw = 0, speedMbps = 1000): PortRun => ({
  count,
  prefix: "",
  soft: "e",
  medium: "copper",
  speedMbps,
  poeMw,
});
const fibre = (count: number): PortRun => ({
  count,
  prefix: "",
  soft: "f",
  medium: "fibre",
  speedMbps: 10_000,
  poeMw: 0,
});
const line = (count: number): PortRun => ({
  count,
  prefix: "Line ",
  soft: "w",
  medium: "copper",
  speedMbps: 1000,
  poeMw: 0,
});

interface Rest {
  readonly poe?: number;
  readonly oneLost?: number;
  readonly units?: number;
  readonly bridging?: Device["bridging"];
  readonly abilities?: Partial<Abilities>;
}

// eslint-disable-next-line max-params -- a row of the catalogue, read in columns
function generic(
  id: string,
  kind: Device["kind"],
  model: string,
  runs: readonly PortRun[],
  { poe = 0, oneLost, units = 0, bridging = "vlan", abilities = {} }: Rest = {},
): DeviceModel {
  const usual = bridging === "vlan" ? USUAL_ABILITIES : NO_ABILITIES;
  return {
    id,
    kind,
    bridging,
    model,
    poeBudgetMw: poe,
    poeOneLostMw: oneLost ?? null,
    heightUnits: units,
    abilities: { ...usual, ...abilities },
    runs,
  };
}

const ROUTES = { abilities: { routes: true } } as const;
const SMALL = { maxVlans: 64 } as const;

/** Generic hardware; the numbers printed on the case run on from one run to the next. */
export const DEVICE_MODELS: readonly DeviceModel[] = [
  generic("gateway-4", "gateway", "Gateway, 1 line and 4 ports", [line(1), copper(4)], ROUTES),
  generic("gateway-8", "gateway", "Gateway, 2 lines and 8 ports", [line(2), copper(8)], {
    units: 1,
    ...ROUTES,
  }),
  generic("router-wireless-4", "gateway", "Router with wireless, 1 line and 4 ports", [line(1), copper(4)], {
    abilities: { ...ROUTES.abilities, radios: true },
  }),
  generic(
    "router-wireless-plain-4",
    "gateway",
    "Router with wireless, no VLANs, 1 line and 4 ports",
    [line(1), copper(4)],
    { bridging: "plain", abilities: { ...ROUTES.abilities, radios: true } },
  ),
  generic("firewall-6", "firewall", "Firewall, 2 lines and 6 ports", [line(2), copper(6)], {
    units: 1,
    ...ROUTES,
  }),
  generic("switch-8", "switch", "8-port switch, 2 uplinks", [copper(8), fibre(2)], { abilities: SMALL }),
  generic("switch-8-poe", "switch", "8-port PoE switch, 2 uplinks", [copper(8, 30_000), fibre(2)], {
    poe: 65_000,
    abilities: SMALL,
  }),
  generic("switch-16", "switch", "16-port switch, 2 uplinks", [copper(16), fibre(2)], { units: 1 }),
  generic("switch-16-poe", "switch", "16-port PoE switch, 2 uplinks", [copper(16, 30_000), fibre(2)], {
    poe: 120_000,
    units: 1,
  }),
  generic("switch-24-poe", "switch", "24-port PoE switch, 2 uplinks", [copper(24, 30_000), fibre(2)], {
    poe: 185_000,
    units: 1,
  }),
  generic("switch-24", "switch", "24-port switch, 2 uplinks", [copper(24), fibre(2)], { units: 1 }),
  generic("switch-24-routing", "switch", "24-port layer-3 switch, 4 uplinks", [copper(24), fibre(4)], {
    units: 1,
    ...ROUTES,
  }),
  generic(
    "switch-48-poe",
    "switch",
    "48-port PoE switch, 4 uplinks, 2 supplies",
    [copper(48, 30_000), fibre(4)],
    { poe: 740_000, oneLost: 370_000, units: 1 },
  ),
  generic("switch-48", "switch", "48-port switch, 4 uplinks", [copper(48), fibre(4)], { units: 1 }),
  generic("switch-5-plain", "switch", "5-port unmanaged switch", [copper(5)], { bridging: "plain" }),
  generic("switch-16-plain", "switch", "16-port unmanaged switch", [copper(16)], { bridging: "plain" }),
  generic("access-point", "accessPoint", "Access point, 1 uplink", [copper(1)], {
    abilities: { trees: [], snooping: false, arpInspection: false, signIn: false },
  }),
  generic("provider-box", "providerBox", "Provider's box, 4 ports", [copper(4)], { bridging: "plain" }),
  generic(
    "converter",
    "converter",
    "Media converter, copper to fibre",
    [copper(1), { ...fibre(1), speedMbps: 1000 }],
    { bridging: "plain" },
  ),
  generic("server-2", "server", "Server, 2 interfaces", [copper(2)], { bridging: "none", units: 2 }),
];

const ofSite = ({
  id,
  name,
  kind,
  bridging,
  runs,
  poeBudgetMw,
  poeOneLostMw,
  heightUnits,
  abilities,
}: OwnModel): DeviceModel => ({
  id,
  kind,
  bridging,
  model: name,
  poeBudgetMw,
  poeOneLostMw,
  heightUnits,
  abilities,
  runs,
});

/** The site's own models, then the catalogue's. */
export const modelsOf = (plan: Plan): readonly DeviceModel[] => [
  ...[...plan.deviceModel.values()].map(ofSite),
  ...DEVICE_MODELS,
];
