import { encodePlan } from "../src/core/formats";
import { signInSwitches, whoGetsIn } from "../src/core/guards";
import { must } from "../src/core/kernel";
import { applyChanges, BLANK_SIGN_IN, PlanEdits, PlanIndex, vid, type Plan } from "../src/core/plan";
import { configurationDigest, TREE } from "../src/core/spanning-tree";
import { FABRIC } from "../src/core/fabric";
import { step, type Ipv4, type Prefix4 } from "../src/core/address";
import { anInterface, testId } from "../src/core/testing/build-plan";
import { generate, SIZES } from "./generate";

type Median = (runs: number, once: () => unknown) => number;
type Add = (what: string, ms: number, parse: number) => void;

const edited = (plan: Plan, write: (edits: PlanEdits) => void): Plan => {
  const edits = new PlanEdits(plan);
  write(edits);
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "it stands");
};

/** As many switches as find room for an address beside the hosts of one subnet. */
const MANAGED = 150;

/** The addresses of a subnet that nobody has, its first and last left out. */
function freeAddresses(plan: Plan, { network, length }: Prefix4): Ipv4[] {
  const index = PlanIndex.of(plan);
  const all = Array.from({ length: 2 ** (32 - length) - 2 }, (_, at) => step(network, at + 1));
  return all.flatMap((ipv4) => (ipv4 === null || index.holdersOf(ipv4).length > 0 ? [] : [ipv4]));
}

/**
 * Every port with somebody at it asks for a sign-in, by MAC address, at two servers in the segment where the
 * switches are managed.
 */
const signingIn = (plan: Plan): Plan =>
  edited(plan, (edits) => {
    const hosts = edits.all("host").filter(({ attachment }) => attachment.at === "port");
    const [first] = hosts.filter(({ manner }) => manner === "typed");
    const segment = must(
      edits.all("segment").find((segment) => segment.id === first?.segment),
      "a segment",
    );
    const servers = hosts
      .filter((host) => host.segment === segment.id && host.manner === "typed")
      .slice(0, 2);
    const id = testId("signIn", "all");
    edits.put("signIn", {
      ...BLANK_SIGN_IN,
      id,
      name: "All",
      servers: servers.map((host) => host.id),
      byMac: true,
    });
    const free = freeAddresses(plan, must(segment.prefixes4[0], "a subnet"));
    edits.all("device").forEach((device, at) => {
      const own = free[at];
      if (device.kind === "switch" && at < MANAGED && own !== undefined)
        edits.put(
          "interface",
          anInterface({
            device: device.id,
            name: `managed ${at}`,
            segment: segment.id,
            addresses4: [own],
          }),
        );
    });
    const managed = new Set(
      edits.all("interface").flatMap((leg) => (leg.segment === segment.id ? [leg.device] : [])),
    );
    const own = new Set(servers.map((host) => (host.attachment.at === "port" ? host.attachment.port : "")));
    for (const { attachment } of hosts) {
      if (attachment.at !== "port" || own.has(attachment.port)) continue;
      const port = edits.need("port", attachment.port);
      if (!managed.has(port.device)) continue;
      edits.patch("port", port.id, { guards: { ...port.guards, signIn: true, profile: id } });
    }
  });

/** Every switch in one region of as many trees as it takes, the VLANs in turn. */
const inRegion = (plan: Plan, trees: number): Plan =>
  edited(plan, (edits) => {
    const vids = [...new Set([...plan.vlan.values()].map((vlan) => vlan.vid))];
    const instances = Array.from({ length: trees }, (_, at) => ({
      number: at + 1,
      vids: vids
        .filter((_vid, place) => place % trees === at)
        .map((number) => must(vid(number), "a VLAN ID")),
      priority: 32_768,
    }));
    for (const device of edits.all("device"))
      if (device.bridging === "vlan")
        edits.patch("device", device.id, {
          tree: {
            ...device.tree,
            kind: "multiple",
            region: "Campus",
            instances: instances.map((instance) => ({ ...instance })),
          },
        });
  });

/** Rows about switch guards, at campus. */
export function measureGuards(median: Median, add: Add): void {
  const plan = generate(
    must(
      SIZES.find(({ name }) => name === "campus"),
      "campus",
    ),
  );
  const text = JSON.stringify(encodePlan(plan));
  const parse = median(5, () => JSON.parse(text));
  const asking = PlanIndex.of(signingIn(plan));
  const first = must(signInSwitches(asking)[0], "a switch").id;
  const ports = whoGetsIn(asking, first);
  const inside = ports.filter(({ cells }) => cells?.well.differs === false).length;
  add(
    `campus: who gets in at one switch, ${ports.length} ports, ${inside} let in`,
    median(3, () => whoGetsIn(PlanIndex.of(asking.plan), first)),
    parse,
  );
  add(
    "campus: who gets in at all ports",
    median(3, () => whoGetsIn(PlanIndex.of(asking.plan))),
    parse,
  );
  const region = inRegion(plan, 64);
  add(
    "campus: trees of 64 instances and their digests",
    median(3, () => {
      const fresh = PlanIndex.of(
        edited(region, (edits) => {
          for (const device of edits.all("device"))
            edits.patch("device", device.id, {
              tree: { ...device.tree, instances: [...device.tree.instances] },
            });
        }),
      );
      fresh.derived(FABRIC);
      fresh.derived(TREE);
      return [...fresh.plan.device.values()].map(configurationDigest);
    }),
    parse,
  );
}
