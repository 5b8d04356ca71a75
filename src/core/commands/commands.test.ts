/* eslint-disable max-lines -- one list: an example for every command */
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { parsePrefix, type Prefix6 } from "../address";
import { decodeChanges, describeChanges, encodeBatch } from "../formats";
import { must } from "../kernel";
import { BLANK_ZONE, applyChanges, BLANK_RULE, PlanEdits, invert, PlanIndex, vid, type Plan } from "../plan";
import { guessColumns, readHostTable, readSeenTable, reconcile, seenIn } from "../register";
import { testId } from "../testing/build-plan";
import { COMMANDS, runOrder, type CommandName, type Order } from ".";

/** A plan as a file could hold it: a device renamed, a host gone, a zone more, and a site of its own. */
function otherPlanOf(plan: Plan): Plan {
  const edits = new PlanEdits(plan);
  const [device, host] = [must([...plan.device.values()][0], "a device"), [...plan.host.values()]];
  edits.patch("device", device.id, { name: "Renamed by the file" });
  const loner = host.find(({ id, attachment }) => attachment.at !== "behind" && isFree(plan, id));
  edits.remove("host", must(loner, "a host that nothing names").id);
  edits.put("zone", {
    id: testId("zone", "of the file"),
    ...BLANK_ZONE,
    name: "From the file",
    insideOpen: true,
  });
  const applied = applyChanges(plan, edits.changes());
  const { site, ...rest } = must(applied.ok ? applied.value : null, "such a plan stands");
  return { ...rest, site: { ...site, id: testId("site", "of the file"), name: "Named by the file" } };
}
const isFree = (plan: Plan, id: string): boolean =>
  !JSON.stringify(
    [...plan.host.values(), ...plan.scope.values(), ...plan.expectation.values(), ...plan.signIn.values()],
    (_key, value: unknown) => (typeof value === "bigint" ? String(value) : value),
  )
    .replace(`"id":"${id}"`, "")
    .includes(id);

type Args<N extends CommandName> = Parameters<(typeof COMMANDS)[N]>[0];
type Examples = { readonly [N in CommandName]: (site: Site) => Args<N> };

/** A demo site with what the examples pick from it, by name or the first that fits. */
class Site {
  readonly plan: Plan;
  readonly index: PlanIndex;
  constructor(plan: Plan) {
    this.plan = plan;
    this.index = PlanIndex.of(plan);
  }
  named = (kind: "device" | "segment" | "host" | "zone" | "room", name: string): string =>
    must([...this.plan[kind].values()].find((entity) => entity.name === name)?.id, `${kind} ${name}`);
  first = (
    kind:
      | "link"
      | "ssid"
      | "gear"
      | "line"
      | "lag"
      | "expectation"
      | "template"
      | "hostKind"
      | "forward"
      | "wish"
      | "acceptance"
      | "leaflet"
      | "window"
      | "exception"
      | "service"
      | "conduit"
      | "signIn"
      | "wall",
  ) => must([...this.plan[kind].keys()][0], `a ${kind}`);
  /** The rule with that number in the list of the Gateway. */
  rule = (number: number): string =>
    must(this.index.rulesOf(this.named("device", "Gateway"))[number - 1]?.id, `rule ${number}`);
  port = (device: string, label: string): string =>
    must(
      this.index.portsOf(this.named("device", device)).find((port) => port.label === label)?.id,
      `${device} ${label}`,
    );
  free = (device: string, count: number): string[] =>
    this.index
      .portsOf(this.named("device", device))
      .filter(
        (port) =>
          port.speedMbps === 1000 &&
          port.lag === null &&
          this.index.linkAt(port.id) === undefined &&
          this.index.hostsAt(port.id).length === 0,
      )
      .slice(-count)
      .map((port) => port.id);
  scope = (segment: string): string =>
    must(this.index.scopesOf(this.named("segment", segment))[0]?.id, `the scope of ${segment}`);
  radio = (): string => must([...this.plan.radio.keys()][0], "a radio");
  leg = (device: string): string =>
    must(this.index.interfacesOf(this.named("device", device))[0]?.id, `a leg of ${device}`);
  points = (): string[] =>
    [...this.plan.device.values()]
      .filter((device) => device.kind === "accessPoint")
      .map((device) => device.id);
}

let made = 0;
const nextId = () => testId("command", `${(made += 1)}`);

function done(plan: Plan, order: Order): Plan {
  const { batch, refusal } = runOrder(PlanIndex.of(plan), nextId, order);
  const result = applyChanges(plan, must(batch, refusal ?? "").changes);
  return must(result.ok ? result.value : null, "applies");
}

/** Fennel Street with one of each thing that some command needs and the demo has not. */
function prepared(): Site {
  let plan = fennelStreet();
  const { addTemplate, addHostKind, addGear, keepProbe, makeLag, addLine, pasteRoutes, writeForward } =
    COMMANDS;
  const { acceptFinding, addException, addService, addWindow, writeConduit, writeGear, writeRegion } =
    COMMANDS;
  const { writeTunnel, writeWish } = COMMANDS;
  const host = must([...plan.host.keys()][0], "a host");
  const at = new Site(plan);
  for (const order of [
    addTemplate({ name: "Labels", ending: "txt", text: "{{ name }}" }),
    addHostKind({ name: "Scale" }),
    addGear({ name: "Old box" }),
    addLine({ name: "Spare line" }),
    writeForward({ forward: null, column: "to", text: "Image store" }),
    writeWish({ wish: null, column: "to", text: "Image store" }),
    writeTunnel({ segment: null, column: "name", text: "On call" }),
    addException({ from: "Guests", to: "Image store", services: "ssh" }),
    addService({ name: "spare", is: "tcp 8007" }),
    addWindow({ name: "Tuesday evening", starts: "2026-12-08 18:00" }),
    writeGear({ row: at.named("device", "Upper switch"), column: "idleMinutes", text: "30 min" }),
    writeConduit({ conduit: null, column: "name", text: "Spare" }),
    writeRegion({ device: at.named("device", "Upper switch"), column: "region", text: "Practice" }),
    acceptFinding({ finding: "a b", says: "So it is.", reason: "known", by: "Ruth", until: "" }),
    pasteRoutes({
      device: at.named("device", "Gateway"),
      rows: [["10.61.0.0/20", "10.24.20.7"]],
      from: "prefix",
      onto: [],
    }),
    keepProbe({
      name: "It prints",
      question: {
        from: { at: "host", host },
        goal: { to: "internet", service: null },
        family: 4,
        as: { as: "client" },
        mac: null,
      },
      passes: true,
      segment: null,
    }),
    makeLag({ ports: at.free("Switch B", 2) }),
    makeLag({ ports: at.free("Upper switch", 2) }),
  ])
    plan = done(plan, order);
  return new Site(plan);
}

const site = prepared();
const model = {
  name: "Five ports",
  kind: "switch",
  bridging: "vlan",
  ports: "5 copper",
  budgetW: "",
  oneLostW: "",
  heightUnits: "1",
} as const;

const EXAMPLES: Examples = {
  addDevice: () => ({ model: "switch-8", name: "Desk switch", place: "Desk", title: "8-port switch" }),
  addStack: () => ({ text: "2 × 24-port switch" }),
  addRescueNetwork: (at) => ({ device: at.named("device", "Upper switch") }),
  removeDevice: (at) => ({ device: at.named("device", "Upper switch") }),
  editDevice: (at) => ({ device: at.named("device", "Switch B"), field: "place", text: "Loft" }),
  setDevice: (at) => ({ device: at.named("device", "Switch B"), fields: { poe: "class4" } }),
  setAbilities: (at) => ({ device: at.named("device", "Switch B"), part: { mixesTagged: false } }),
  setVlanNameLimit: (at) => ({ device: at.named("device", "Switch B"), text: "12" }),
  setDeviceVlans: (at) => ({ device: at.named("device", "Switch B"), text: "10 Kit, 20" }),
  setLeaflet: (at) => ({ device: at.named("device", "Switch B"), field: "address", text: "192.168.9.1/24" }),
  pasteLeaflets: () => ({
    rows: [
      ["Which", "Model", "Starts in"],
      ["192.168.9.1/24", "8-port switch", "2 min"],
    ],
  }),
  forgetLeaflet: (at) => ({ leaflet: at.first("leaflet") }),
  takeFromDevice: (at) => ({
    device: at.named("device", "Switch B"),
    taken: [
      { kind: "port", id: at.port("Switch B", "3"), fields: { pvid: null, untagged: [], enabled: false } },
    ],
  }),
  setAsksFrom: (at) => ({ device: at.named("device", "Gateway"), leg: at.leg("Gateway") }),
  addLeg: (at) => ({
    device: at.named("device", "Switch B"),
    segment: at.named("segment", "Staff"),
    text: ".250",
  }),
  setLegAddress: (at) => ({ leg: at.leg("Switch B"), text: ".240" }),
  removeLeg: (at) => ({ device: at.named("device", "Switch B"), leg: at.leg("Switch B") }),
  setProtectedVlans: (at) => ({ device: at.named("device", "Switch B"), field: "snooping", text: "20" }),
  setProtections: (at) => ({ device: at.named("device", "Switch B"), fields: { option82: true } }),
  setTreeKind: (at) => ({ device: at.named("device", "Switch B"), kind: "multiple" }),
  setTreePriority: (at) => ({ device: at.named("device", "Switch B"), text: "8192" }),
  setTreeTimer: (at) => ({ device: at.named("device", "Switch B"), timer: "forwardDelay", text: "20 s" }),
  setAdminSignIn: (at) => ({ device: at.named("device", "Switch B"), fields: { by: "tacacs" } }),
  editAdminSignIn: (at) => ({ device: at.named("device", "Switch B"), field: "servers", text: "Analyser" }),
  setTreeCosts: (at) => ({ device: at.named("device", "Switch B"), costs: "short" }),
  setTreeRegion: (at) => ({ device: at.named("device", "Switch B"), field: "region", text: "Clinic" }),
  setTreeInstances: (at) => ({ device: at.named("device", "Switch B"), text: "1: 20" }),
  chooseRoot: (at) => ({ root: at.named("device", "Switch B"), second: null }),
  placeDevices: (at) => ({ places: new Map([[at.named("device", "Switch B"), { x: 1, y: 2 }]]) }),
  arrangeDevices: () => ({}),
  putModel: () => ({ model: null, typed: model }),
  removeModel: (at) => ({ model: must([...at.plan.deviceModel.keys()][0], "a model") }),
  connectPorts: (at) => ({
    a: must(at.free("Switch B", 3)[0], "a"),
    b: must(at.free("Upper switch", 3)[0], "b"),
  }),
  layCable: (at) => ({
    text: ["Switch B", "Upper switch"]
      .map((name) => `${name} ${at.plan.port.get(at.free(name, 3)[0] ?? "")?.label ?? ""}`)
      .join(" to "),
  }),
  removeLinks: (at) => ({ links: [at.first("link")] }),
  setLinkMedium: (at) => ({ link: at.first("link"), medium: "fibre" }),
  setLinkCable: (at) => ({ link: at.first("link"), cable: "cat6a" }),
  editLinkText: (at) => ({ link: at.first("link"), field: "panel", text: "P1-07" }),
  editCable: (at) => ({ link: at.first("link"), column: "label", text: "W-17" }),
  pasteCables: (at) => ({ rows: [["W-99"]], from: "label", onto: [at.first("link")] }),
  clearCables: (at) => ({ cells: [{ row: at.first("link"), column: "length" }] }),
  labelCables: () => ({ link: null }),
  setOptic: (at) => ({ port: at.port("Upper switch", "25"), optic: "10GBASE-LR" }),
  makeLag: (at) => ({ ports: at.free("Switch B", 2) }),
  setLagMode: (at) => ({ lag: at.first("lag"), mode: "static" }),
  dissolveLag: (at) => ({ lag: at.first("lag") }),
  cableLags: (at) => {
    const [a = "", b = ""] = [...at.plan.lag.keys()];
    return { a, b };
  },
  editPort: (at) => ({ port: at.port("Switch B", "5"), field: "softwareName", text: "te1/5" }),
  notePorts: (at) => ({ ports: [at.port("Switch B", "5")], text: "checked" }),
  paintPorts: (at) => ({ ports: at.free("Switch B", 1), paint: { role: "park" }, title: "parked" }),
  setGuard: (at) => ({ ports: [at.port("Switch B", "5")], guard: "restrictedRole", on: true }),
  setMacLimit: (at) => ({ ports: [at.port("Switch B", "5")], text: "3" }),
  setStormLimit: (at) => ({ ports: [at.port("Switch B", "5")], text: "5 %" }),
  setVoicePolicy: (at) => ({ ports: [at.port("Switch B", "5")], text: "30 priority 6" }),
  setPortProfile: (at) => ({
    ports: at.free("Upper switch", 1),
    profile: must([...at.plan.signIn.keys()][0], "a profile"),
  }),
  setSoftwareNames: (at) => ({
    device: at.named("device", "Switch B"),
    names: new Map([[at.port("Switch B", "5"), "eth0/5"]]),
  }),
  setCrossing: (at) => ({
    port: must(at.free("Switch B", 1)[0], "a port"),
    vid: must(vid(20), "20"),
    way: "tagged",
  }),
  carryExactly: () => ({}),
  addSegment: () => ({ name: "Kiosk", vid: "95", prefix: "", zone: "" }),
  removeSegments: (at) => ({ segments: [at.named("segment", "Staff")] }),
  editSegment: (at) => ({ segment: at.named("segment", "Staff"), column: "planned", text: "77" }),
  editSegmentText: (at) => ({
    segment: at.named("segment", "Staff"),
    field: "domainName",
    text: "staff.example",
  }),
  setSegment: (at) => ({ segment: at.named("segment", "Staff"), fields: { purpose: "servers" } }),
  pasteSegments: (at) => ({ rows: [["Team"]], from: "name", onto: [at.named("segment", "Staff")] }),
  clearSegments: (at) => ({ cells: [{ row: at.named("segment", "Staff"), column: "dns" }] }),
  movePool: (at) => ({
    segment: at.named("segment", "Staff"),
    first: 90,
    last: 96,
    said: ".90 to .96",
  }),
  sizeLeases: (at) => ({ scope: at.scope("Staff"), leaseSeconds: 3600, missing: 1 }),
  setServer: (at) => ({ scope: at.scope("Staff"), server: { device: at.named("device", "Upper switch") } }),
  addOption: (at) => ({ segment: at.named("segment", "Staff"), text: "66 boot.example" }),
  removeOption: (at) => {
    const scope = must(
      [...at.plan.scope.values()].find((scope) => scope.options.length > 0),
      "a scope with options",
    );
    return { scope: scope.id, code: must(scope.options[0], "an option").code };
  },
  allocate: (at) => ({
    scheme: "packed",
    doubled: false,
    keep: [at.named("segment", "Staff")],
    blocks: "10.64.0.0/16",
  }),
  renumberBlock: () => ({ from: "10.24.0.0/16", to: "10.25.0.0/16" }),
  splitSegment: (at) => ({ segment: at.named("segment", "Guests"), name: "Guests 2" }),
  mergeSegments: (at) => ({ into: at.named("segment", "Guests"), gone: at.named("segment", "Guests 2") }),
  numberSix: () => ({}),
  editSite: () => ({ field: "timeZone", text: "Europe/Dublin" }),
  editPaper: () => ({ field: "agreed", text: "Visitors get to the internet\nand nowhere else." }),
  setSiteKind: () => ({ kind: "home" }),
  setConventions: () => ({ gatewayAt: "last" }),
  addUniqueLocal: () => ({ prefix: must(parsePrefix("fd12:3456:789a::/48"), "") as Prefix6 }),
  bringBack: (at) => ({
    from: "A Offer",
    earlier: otherPlanOf(at.plan),
    things: [{ kind: "device" as const, id: must([...at.plan.device.keys()][0], "a device") }],
  }),
  importPlan: ({ plan }) => ({ file: "plan.json", plan: otherPlanOf(plan) }),
  addKeptClear: () => ({ text: "10.98.0.0/16 the clinic next door" }),
  removeKeptClear: (at) => ({ prefix: at.plan.site.keepClear.length > 0 ? "10.99.0.0/16" : "" }),
  addLine: () => ({ name: "Radio line" }),
  removeLine: (at) => ({
    line: must(
      [...at.plan.line.values()].find((line) => line.name === "Spare line"),
      "",
    ).id,
  }),
  setLine: (at) => ({ line: at.first("line"), fields: { carrierNat: "yes" } }),
  editLineField: (at) => ({ line: at.first("line"), field: "downMbps", text: "333" }),
  editOutside: (at) => ({ line: at.first("line"), field: "dns", text: "192.0.2.53" }),
  addTemplate: () => ({ name: "Cards", ending: "txt", text: "{{ model }}" }),
  writeTemplate: (at) => ({ template: at.first("template"), text: "{{ place }}" }),
  editTemplate: (at) => ({ template: at.first("template"), fields: { name: "Stickers" } }),
  removeTemplate: (at) => ({ template: at.first("template") }),
  addRoom: () => ({ name: "Attic", needs: "1 printer" }),
  editRoom: (at) => ({ room: must([...at.plan.room.keys()][0], ""), field: "height", text: "3" }),
  moveRoom: (at) => ({ room: must([...at.plan.room.keys()][1], ""), by: -1 }),
  removeRooms: (at) => ({ rooms: [must([...at.plan.room.keys()].at(-1), "")] }),
  pasteRooms: () => ({ rows: [["Cellar", "2 PC"]] }),
  pasteNeeds: (at) => ({ needs: ["3 PC"], onto: [must([...at.plan.room.keys()][0], "")], names: [""] }),
  clearRooms: (at) => ({ cells: [{ row: must([...at.plan.room.keys()][0], ""), column: "needs" }] }),
  addGear: () => ({ name: "Old hub" }),
  editGear: (at) => ({ gear: at.first("gear"), field: "addresses", text: "192.168.9.1" }),
  setGear: (at) => ({ gear: at.first("gear"), fields: { facesInternet: true } }),
  removeGear: (at) => ({ gear: at.first("gear") }),
  addHostKind: () => ({ name: "Kiln" }),
  setHostKind: (at) => ({ kind: at.first("hostKind"), fields: { wireless: true } }),
  setAliases: (at) => ({ kind: at.first("hostKind"), text: "balance" }),
  removeHostKind: (at) => ({ kind: at.first("hostKind") }),
  editHost: (at) => ({ host: at.named("host", "Analyser"), column: "place", text: "Lab 2" }),
  editHostField: (at) => ({ host: at.named("host", "Analyser"), field: "notes", text: "leased" }),
  setChangesMac: (at) => ({ host: at.named("host", "Analyser"), on: true }),
  editOwnNetwork: (at) => ({
    host: must(
      [...at.plan.host.values()].find((host) => host.manner === "typed" && host.ipv4 !== null),
      "",
    ).id,
    field: "length4",
    text: "/25",
  }),
  giveAddress: (at) => {
    const host = must(
      [...at.plan.host.values()].find(
        (host) => host.segment === at.named("segment", "Staff") && host.mac !== null,
      ),
      "",
    );
    return { host: host.id, address: ".21", manner: "reserved" };
  },
  addHost: (at) => ({ name: "Till", segment: at.named("segment", "Staff"), cells: { place: "Desk" } }),
  removeHosts: (at) => ({ hosts: [at.named("host", "Analyser")] }),
  pasteHosts: (at) => ({
    rows: [["Analyser 2"]],
    from: "name",
    onto: [at.named("host", "Analyser")],
    segment: null,
  }),
  clearHosts: (at) => ({ cells: [{ row: at.named("host", "Analyser"), column: "place" }] }),
  convertSchool: (at) => ({
    hosts: [
      must(
        [...at.plan.host.values()].find((host) => host.manner === "reserved"),
        "a reserved host",
      ).id,
    ],
    to: "typed",
  }),
  importHosts: (at) => {
    const rows = [
      ["Name", "Segment"],
      ["Card reader", "Staff"],
    ];
    return { table: readHostTable(at.index, rows, guessColumns(rows), null) };
  },
  takeOverSeen: (at) => ({
    rows: reconcile(at.index, seenIn(readSeenTable("02:5a:10:3c:77:01 10.24.20.201"))).rows,
  }),
  addSsid: (at) => ({ segment: at.named("segment", "Staff"), name: null }),
  removeSsids: (at) => ({ ssids: [at.first("ssid")] }),
  setSsid: (at) => ({ ssid: at.first("ssid"), fields: { hidden: true } }),
  editSsidText: (at) => ({ ssid: at.first("ssid"), column: "name", text: "Clinic" }),
  pasteSsids: (at) => ({ rows: [["Clinic 2"]], from: "name", onto: [at.first("ssid")] }),
  clearSsids: (at) => ({ cells: [{ row: at.first("ssid"), column: "more" }] }),
  setNameSchool: () => ({ school: "each" }),
  setRadio: (at) => ({ radio: at.radio(), fields: { enabled: false } }),
  setRadioIn: (at) => ({ device: must(at.points()[0], "a point"), band: "6", on: true }),
  setChannel: (at) => ({ radio: at.radio(), text: "" }),
  setHearing: (at) => {
    const [a = "", b = ""] = at.points();
    return { a, b, on: at.plan.device.get(a)?.hears.includes(b) !== true };
  },
  editRadio: (at) => ({ device: must(at.points()[0], ""), column: "place", text: "Hall" }),
  pasteRadios: (at) => ({ rows: [["Porch"]], from: "place", onto: [must(at.points()[0], "")] }),
  clearRadios: (at) => ({ cells: [{ row: must(at.points()[0], ""), column: "place" }] }),
  giveChannels: () => ({ bands: ["5"], useDfs: "with radar channels" }),
  setRadioRules: () => ({ set: "japan" }),
  setChannels: () => ({ band: "2.4", text: "1, 6" }),
  renameZone: (at) => ({ zone: must([...at.plan.zone.keys()][0], ""), name: "Renamed" }),
  openZone: (at) => {
    const zone = must([...at.plan.zone.values()][0], "a zone");
    return { zone: zone.id, open: !zone.insideOpen };
  },
  writeLine: (at) => ({ line: at.first("line"), column: "after", text: "25 s" }),
  removeLines: (at) => ({
    lines: [
      must(
        [...at.plan.line.values()].find((line) => line.name === "Spare line"),
        "",
      ).id,
    ],
  }),
  pasteLines: () => ({
    rows: [["1", "Field line", "40 %", "198.51.100.53", "5 s", "by hand", "Staff or nothing", "vet.example"]],
    from: "order",
    onto: [],
  }),
  editFollow: (at) => ({ line: at.first("line"), field: "name", text: "vet.example" }),
  writeWish: (at) => ({ wish: at.first("wish"), column: "way", text: "VPN" }),
  pasteWishes: () => ({
    rows: [["Records", "Image store", "https", "203.0.113.40", "forward", "for the on-call vet"]],
    from: "name",
    onto: [],
  }),
  removeWishes: (at) => ({ wishes: [at.first("wish")] }),
  setUpWay: (at) => ({
    wish: at.first("wish"),
    way: "vpn",
    line: must(
      [...at.plan.line.values()].find(({ name }) => name === "Fibre line"),
      "the line",
    ).id,
  }),
  writeTunnel: (at) => ({ segment: at.named("segment", "On call"), column: "answers", text: "udp 51901" }),
  pasteTunnels: () => ({
    rows: [["Clinic next door", "another site", "10.98.0.0/24", "udp 51902", "Fibre line", "Gateway"]],
    from: "name",
    onto: [],
  }),
  removeTunnels: (at) => ({ segments: [at.named("segment", "On call")] }),
  addWindow: () => ({ name: "Saturday", starts: "2026-12-05 18:00" }),
  writeWindow: (at) => ({ window: at.first("window"), column: "segments", text: "Phones, Staff" }),
  pasteWindows: () => ({
    rows: [["Sunday", "2026-12-06 08:00", "4 h", "Staff", "14/26", "the practice manager", "gate is locked"]],
    from: "name",
    onto: [],
  }),
  removeWindows: (at) => ({ windows: [at.first("window")] }),
  writeGear: (at) => ({ row: at.plan.site.id, column: "idleMinutes", text: "7 min" }),
  pasteGear: (at) => ({
    rows: [["web over TLS, SSH", "5 min"]],
    from: "waysIn",
    onto: [at.named("device", "Upper switch")],
  }),
  toBaseline: (at) => ({ devices: [at.named("device", "Upper switch")], fields: null }),
  addService: () => ({ name: "backup", is: "https, tcp 8007" }),
  writeService: (at) => ({ service: at.first("service"), column: "is", text: "https, udp 5000-5010" }),
  pasteServices: () => ({ rows: [["copies", "tcp 8009", "at night"]], from: "name", onto: [] }),
  removeServices: (at) => ({ services: [at.first("service")] }),
  writeRegion: (at) => ({ device: at.named("device", "Upper switch"), column: "vid 20", text: "3" }),
  pasteRegions: (at) => ({
    rows: [["Practice", "2"]],
    from: "region",
    onto: [at.named("device", "Lower switch")],
  }),
  copyRegion: (at) => ({
    from: at.named("device", "Upper switch"),
    onto: [at.named("device", "Switch B")],
  }),
  writeSignIn: (at) => ({ profile: at.first("signIn"), column: "stage", text: "limited" }),
  pasteSignIns: () => ({ rows: [["Lobby", "", "watch", "yes"]], from: "name", onto: [] }),
  removeSignIns: (at) => ({ profiles: [at.first("signIn")] }),
  writeConduit: (at) => ({ conduit: at.first("conduit"), column: "level", text: "2" }),
  pasteConduits: () => ({ rows: [["Supply", "3", "shift engineer"]], from: "name", onto: [] }),
  removeConduits: (at) => ({ conduits: [at.first("conduit")] }),
  putInConduit: (at) => ({ wall: at.first("wall"), name: "Of its own" }),
  setZone: (at) => ({ zone: at.named("zone", "Practice"), fields: { level: "business", securityLevel: 2 } }),
  tellBetween: (at) => ({
    device: at.named("device", "Gateway"),
    segments: [at.named("segment", "Staff"), at.named("segment", "Servers")],
  }),
  addException: () => ({ from: "Guests", to: "Image store", services: "https" }),
  writeException: (at) => ({ exception: at.first("exception"), column: "hours", text: "Mon-Fri 8-17" }),
  pasteExceptions: () => ({
    rows: [
      [
        "On call",
        "Guests",
        "Image store",
        "https, tcp 8443",
        "daily 22-6",
        "2026-12-01",
        "2027-01-31",
        "Ruth",
        "locum",
      ],
    ],
    from: "name",
    onto: [],
  }),
  removeExceptions: (at) => ({ exceptions: [at.first("exception")] }),
  editLeg: (at) => ({ leg: at.leg("Switch B"), field: "addresses6", text: "2001:db8:24:10::2" }),
  setLeg: (at) => ({ leg: at.leg("Switch B"), fields: { translates: "no" } }),
  chooseGateway: (at) => ({ segment: at.named("segment", "Guests"), device: null }),
  arrangeBox: (at) => ({ line: at.first("line"), arrangement: "behind" }),
  acceptFinding: () => ({
    finding: "port-undecided x",
    says: "Port 7 is still to be decided.",
    reason: "Kept for the scanner that comes in spring",
    by: "Ruth",
    until: "2027-04-30",
  }),
  wakeFindings: (at) => ({ acceptances: [at.first("acceptance")] }),
  writeForward: () => ({ forward: null, column: "to", text: "Image store" }),
  pasteForwards: () => ({
    rows: [
      ["Records", "Fibre line", "udp 8443-8450", "Image store", "443", "203.0.113.40", "2027-04-30", "yes"],
    ],
    from: "name",
    onto: [],
  }),
  removeForwards: (at) => ({ forwards: [at.first("forward")] }),
  pasteRoutes: (at) => ({
    device: at.named("device", "Gateway"),
    rows: [
      ["10.61.8.0/24", "10.24.20.7"],
      ["default6", "fe80::1"],
    ],
    from: "prefix",
    onto: [],
  }),
  removeRoutes: (at) => ({ device: at.named("device", "Gateway"), places: [0] }),
  addRule: (at) => ({ device: at.named("device", "Gateway"), before: at.rule(3) }),
  writeRules: (at) => ({
    cells: [
      { rule: at.rule(2), column: "from", text: "Staff, 10.24.70.0/24" },
      { rule: at.rule(2), column: "services", text: "tcp 8443, https" },
    ],
  }),
  pasteRules: (at) => ({
    device: at.named("device", "Gateway"),
    rows: [
      ["Staff", "Internet", "https"],
      ["Kit", "any", "tcp 22, udp 161", "reject", "for the auditors"],
    ],
    from: "from",
    onto: [at.rule(2)],
  }),
  clearRules: (at) => ({ cells: [{ row: at.rule(6), column: "note" }] }),
  switchRule: (at) => ({ rule: at.rule(4), what: "enabled", on: false }),
  moveRule: (at) => ({ rule: at.rule(5), to: 2 }),
  removeRules: (at) => ({ rules: [at.rule(1), at.rule(6)] }),
  replaceRules: (at) => ({
    device: at.named("device", "Gateway"),
    rules: [{ ...BLANK_RULE, to: [{ at: "internet" }], note: "everybody out" }],
  }),
  adoptRules: (at) => ({ device: at.named("device", "Gateway") }),
  bringRules: (at) => ({ device: at.named("device", "Gateway") }),
  filterBy: (at) => ({
    device: at.named("device", "Gateway"),
    fields: { list: "found", inputDefault: "reject" },
  }),
  setWall: (at) => {
    const [from, to] = [...at.plan.zone.keys()];
    return {
      from: { at: "zone", zone: must(from, "") },
      to: { at: "zone", zone: must(to, "") },
      door: "services",
      services: [{ name: "test", protocol: "tcp", ports: [[7777, 7777]] }],
      reason: "",
    };
  },
  keepProbe: (at) => ({
    name: "Reaches out",
    question: {
      from: { at: "host", host: at.named("host", "Analyser") },
      goal: { to: "internet", service: null },
      family: 4,
      as: { as: "client" },
      mac: null,
    },
    passes: true,
    segment: null,
  }),
  expectProbe: (at) => ({ probe: at.first("expectation"), passes: false }),
  dropProbe: (at) => ({ probe: at.first("expectation") }),
};
const NAMES = Object.keys(COMMANDS) as CommandName[];

/** What some examples change first, so that they have something to do. */
const BEFORE: Partial<Record<CommandName, (at: Site) => readonly Order[]>> = {
  arrangeDevices: (at) => [COMMANDS.placeDevices(EXAMPLES.placeDevices(at))],
  removeModel: (at) => [COMMANDS.putModel(EXAMPLES.putModel(at))],
  carryExactly: (at) => [COMMANDS.setCrossing(EXAMPLES.setCrossing(at))],
  setTreeRegion: (at) => [COMMANDS.setTreeKind(EXAMPLES.setTreeKind(at))],
  setTreeInstances: (at) => [COMMANDS.setTreeKind(EXAMPLES.setTreeKind(at))],
  removeKeptClear: () => [COMMANDS.addKeptClear({ text: "10.99.0.0/16 the branch" })],
  removeOption: (at) => [COMMANDS.addOption(EXAMPLES.addOption(at))],
  mergeSegments: (at) => [COMMANDS.splitSegment(EXAMPLES.splitSegment(at))],
  chooseRoot: (at) => [COMMANDS.setTreeKind(EXAMPLES.setTreeKind(at))],
  numberSix: () => [COMMANDS.addUniqueLocal(EXAMPLES.addUniqueLocal(site))],
  giveChannels: (at) =>
    [...at.plan.radio.values()].map(({ id }) => COMMANDS.setChannel({ radio: id, text: "" })),
  clearCables: (at) => [COMMANDS.editCable({ link: at.first("link"), column: "length", text: "7" })],
  clearSegments: (at) => [
    COMMANDS.editSegment({ segment: at.named("segment", "Staff"), column: "dns", text: "10.24.60.10" }),
  ],
  clearSsids: (at) => [COMMANDS.editSsidText({ ssid: at.first("ssid"), column: "more", text: "Kit" })],
};

/** A command's example on the prepared site, worked out but not done. */
function ordered<N extends CommandName>(name: N): { readonly at: Site; readonly order: Order } {
  const plan = (BEFORE[name]?.(site) ?? []).reduce(done, site.plan);
  const at = new Site(plan);
  const command = COMMANDS[name] as (args: Args<N>) => Order;
  return { at, order: command(EXAMPLES[name](at)) };
}

test("no two commands have one name in the log", () => {
  const names = Object.values(COMMANDS).map(({ planner }) => planner);
  expect(new Set(names).size).toBe(names.length);
});

test.each(NAMES)(
  "%s: applies, is taken back exactly, goes to the server and back, and says what it does",
  (name) => {
    const { at, order } = ordered(name);
    const { batch, refusal } = runOrder(at.index, nextId, order);
    expect(refusal).toBeNull();
    const { changes, summary, planner, args } = must(batch, "a batch");
    expect(changes.length).toBeGreaterThan(0);
    expect(summary).toMatch(/\S/);
    expect(summary).not.toMatch(/undefined|null|NaN|\[object|[0-9a-f]{8}-[0-9a-f]{4}/);
    expect(planner).toBe(COMMANDS[name].planner);
    expect(JSON.parse(JSON.stringify(args ?? null))).toEqual(args ?? null);
    const after = applyChanges(at.plan, changes);
    expect(after.ok).toBe(true);
    if (!after.ok || batch === null) return;
    const back = applyChanges(after.value, invert(changes));
    expect(back).toEqual({ ok: true, value: at.plan });
    const sent = JSON.parse(JSON.stringify(encodeBatch(batch))) as { changes: unknown };
    expect(decodeChanges(sent.changes)).toEqual(changes);
    // Every field that differs is told with both its values.
    for (const told of describeChanges(at.index, PlanIndex.of(after.value), changes)) {
      expect(told.name).not.toBe("");
      if (told.what === "changed") expect(told.fields.length).toBeGreaterThan(0);
      for (const { before, after: now } of told.fields) expect(before).not.toBe(now);
    }
  },
);

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;
const ABOUT = NAMES.filter((name) => JSON.stringify(ordered(name).order.args ?? null).search(ID) >= 0);

test("most commands are about something that may be gone", () => expect(ABOUT.length).toBeGreaterThan(70));

test.each(ABOUT)("%s: refused with a sentence when what it is about is gone", (name) => {
  const { order } = ordered(name);
  const elsewhere = PlanIndex.of(bramblewick());
  const { batch, refusal } = runOrder(elsewhere, nextId, order);
  expect(batch).toBeNull();
  expect(refusal).toBe("Somebody has removed what this is about, so nothing was changed.");
});

test("the sentence follows the arguments", () => {
  const said = (text: string) =>
    COMMANDS.editDevice({ device: site.named("device", "Switch B"), field: "place", text }).says(site.index);
  expect([said("Loft"), said("")]).toEqual(["Switch B: place Loft", "Switch B: place emptied"]);
});

test("a text that looks like an id is a text: a machine's own number is taken as a note", () => {
  const text = "4c4c4544-0042-4a10-8051-b4c04f4a4e32";
  const host = site.named("host", "Analyser");
  const { batch, refusal } = runOrder(
    site.index,
    nextId,
    COMMANDS.editHostField({ host, field: "notes", text }),
  );
  expect(refusal).toBeNull();
  expect(batch?.changes).toMatchObject([{ id: host, after: { notes: text } }]);
});
