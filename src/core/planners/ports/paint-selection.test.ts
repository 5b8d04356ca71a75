import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanEdits, PlanIndex, type Plan, type Port } from "../../plan";
import { isConsistent } from "../../fabric";
import { portCarries } from "../../forwarding";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { paintPorts } from "./paint-ports";
import { paintSelection } from "./paint-selection";
import { portsByRule } from "./port-rules";
import { setAbilities } from "../site/set-fields";

const office = fennelStreet();
const index = PlanIndex.of(office);
const ids = (ports: readonly Port[]) => ports.map((port) => port.id);
const ports = (plan: Plan, picked: readonly string[]) =>
  picked.map((id) => must(plan.port.get(id), "a port"));

test("every uplink of the site painted as an uplink carries exactly what has to pass it", () => {
  const uplinks = ids(portsByRule(index, { by: "uplinks" }));
  const plan = donePlan(afterEdit(office, (context) => paintSelection(context, uplinks, { role: "uplink" })));
  const carries = portCarries(PlanIndex.of(plan));
  for (const id of uplinks) expect([carries.get(id)?.missing, carries.get(id)?.needless]).toEqual([[], []]);
});

test("ports painted for access points give each its names' VLANs, and management untagged", () => {
  const own = ids(portsByRule(index, { by: "accessPoints" }));
  const plan = donePlan(
    afterEdit(office, (context) => paintSelection(context, own, { role: "accessPoint" })),
  );
  const management = must(
    [...office.segment.values()].find((segment) => segment.management),
    "management",
  );
  for (const port of ports(plan, own)) {
    expect(port.pvid).toBe(index.vidOf(management));
    expect(port.tagged.length).toBe(office.ssid.size);
  }
});

test("no access point is painted out of reach: its own segment is untagged; without one none is", () => {
  const [port] = portsByRule(index, { by: "accessPoints" });
  const point = must(index.peerOf(port?.id ?? ""), "its access point").device;
  const servers = must(
    [...office.segment.values()].find((segment) => segment.name === "Servers"),
    "Servers",
  );
  const elsewhere = donePlan(
    afterEdit(office, ({ edits }) => {
      for (const leg of index.interfacesOf(point))
        edits.patch("interface", leg.id, { segment: servers.id, addresses4: [] });
    }),
  );
  const painted = donePlan(
    afterEdit(elsewhere, (context) => paintSelection(context, [port?.id ?? ""], { role: "accessPoint" })),
  );
  expect(painted.port.get(port?.id ?? "")?.pvid).toBe(index.vidOf(servers));
  const none = donePlan(
    afterEdit(office, ({ edits }) => {
      for (const leg of index.interfacesOf(point)) edits.remove("interface", leg.id);
      for (const segment of edits.all("segment")) edits.patch("segment", segment.id, { management: false });
    }),
  );
  expect(
    afterEdit(none, (context) => paintSelection(context, [port?.id ?? ""], { role: "accessPoint" })),
  ).toMatch(/^No segment here is the one that devices are managed from/);
});

test("a spare port painted as an uplink carries all; one with nothing to carry refuses all", () => {
  const [spare] = portsByRule(index, { by: "unused" });
  const plan = donePlan(
    afterEdit(office, (context) => paintSelection(context, [spare?.id ?? ""], { role: "uplink" })),
  );
  expect(plan.port.get(spare?.id ?? "")?.tagged.length).toBe(
    [...office.segment.values()].filter(({ tunnel }) => tunnel === null).length,
  );
  const bare = donePlan(
    afterEdit(office, (context) => {
      for (const segment of context.edits.all("segment"))
        context.edits.patch("segment", segment.id, { vlan: null });
    }),
  );
  expect(
    afterEdit(bare, (context) => paintSelection(context, [spare?.id ?? ""], { role: "uplink" })),
  ).toMatch(/^There is no VLAN that .+ port .+ could carry/);
});

test("a device that can't mix refuses phone + PC and a mixed trunk, and takes everything else", () => {
  const device = must(
    [...office.device.values()].find((device) => device.name === "Switch B"),
    "Switch B",
  );
  const strict = donePlan(
    afterEdit(office, (context) => setAbilities(context, device.id, { mixesTagged: false })),
  );
  const [port] = PlanIndex.of(strict).portsOf(device.id);
  const [a, b] = [...office.vlan.values()].map((vlan) => vlan.vid);
  const vids = [must(a, "a VLAN"), must(b, "another")] as const;
  expect(
    afterEdit(strict, (context) =>
      paintSelection(context, [port?.id ?? ""], { role: "dataVoice", vid: vids[0], voice: vids[1] }),
    ),
  ).toMatch(/^Switch B can't have untagged and tagged/);
  expect(
    afterEdit(strict, (context) =>
      paintSelection(context, [port?.id ?? ""], { role: "trunk", untagged: vids[0], tagged: [vids[1]] }),
    ),
  ).toMatch(/^Switch B can't have untagged and tagged/);
  for (const paint of [
    { role: "access", vid: vids[0] },
    { role: "trunk", untagged: null, tagged: vids },
    { role: "park" },
    { role: "undecided" },
  ] as const) {
    expect(
      ports(donePlan(afterEdit(strict, (context) => paintSelection(context, [port?.id ?? ""], paint))), [
        port?.id ?? "",
      ]).every(isConsistent),
    ).toBe(true);
  }
});

test("a thousand ports painted in one go are one batch that says each port once", () => {
  const edits = new PlanEdits(office);
  const all = [...office.port.keys()];
  for (let i = 0; i < 20; i += 1)
    paintPorts(
      edits,
      all,
      i % 2 === 0
        ? { role: "park" }
        : { role: "access", vid: must([...office.vlan.values()][i % 3], "a VLAN").vid },
    );
  const changed = edits.changes().map((change) => change.id);
  expect(new Set(changed).size).toBe(changed.length);
});
