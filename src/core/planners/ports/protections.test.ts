import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import type { Plan } from "../../plan";
import { asClient } from "../../probe";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { testId } from "../../testing/build-plan";
import { instancesText, setInstances, setProtectedVids, setRegion, readVids } from "./protections";
import { keepProbe } from "../site/kept-probes";
import { removeDevice, removeHost, removeSegment } from "../site/remove";

const works = bramblewick();
const office = fennelStreet();
const device = (plan: Plan, name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const press = device(works, "Press house switch").id;

test.each([
  ["20", [20]],
  ["20, 30 to 33", [20, 30, 31, 32, 33]],
  ["30-32;20", [20, 30, 31, 32]],
  ["", []],
  ["20 30 20", [20, 30]],
  ["4094", [4094]],
])('"%s" is read as VLAN IDs', (text, vids) => expect(readVids(text)).toEqual(vids));

test.each(["0", "4095", "30 to 20", "twenty", "20, x", "1.5"])(
  '"%s" is refused with the part that can\'t be read',
  (text) => {
    expect(readVids(text)).toMatch(/is no VLAN ID or run of them; write numbers from 1 to 4094/);
  },
);

test("protections are written by VLAN, and refused where the software is not known to have them", () => {
  const done = donePlan(
    afterEdit(works, (context) => setProtectedVids(context, press, "snooping", "120, 150")),
  );
  expect(done.device.get(press)?.protections.snooping).toEqual([120, 150]);
  expect(afterEdit(works, (context) => setProtectedVids(context, press, "arpInspection", "9999"))).toMatch(
    /"9999" is no VLAN ID/,
  );
  const plain = donePlan(
    afterEdit(works, ({ edits }) =>
      edits.patch("device", press, {
        abilities: { ...edits.need("device", press).abilities, snooping: false },
      }),
    ),
  );
  expect(afterEdit(plain, (context) => setProtectedVids(context, press, "snooping", "120"))).toMatch(
    /is not known to have that/,
  );
});

test("a region's trees are written as they are shown, and a VLAN is in one of them only", () => {
  const text = "1: 120, 130 priority 4096; 2: 140, 150";
  const done = donePlan(afterEdit(works, (context) => setInstances(context, press, text)));
  expect(instancesText(must(done.device.get(press), "the switch"))).toBe(text);
  expect(
    donePlan(afterEdit(done, (context) => setInstances(context, press, ""))).device.get(press)?.tree
      .instances,
  ).toEqual([]);
  for (const [bad, says] of [
    ["1: 120; 2: 120", /VLAN 120 is in tree 1 and in tree 2/],
    ["one: 120", /is no tree of a region/],
    ["1: 120 priority 5000", /5000 is no bridge priority/],
    ["1: 5000", /is no VLAN ID/],
    ["5000: 120", /is no tree of a region/],
  ] as const)
    expect(afterEdit(works, (context) => setInstances(context, press, bad))).toMatch(says);
  expect(
    donePlan(afterEdit(works, (context) => setRegion(context, press, "revision", "65535"))).device.get(press)
      ?.tree.revision,
  ).toBe(65_535);
  expect(afterEdit(works, (context) => setRegion(context, press, "revision", "65536"))).toMatch(
    /is no revision; write 0 to 65535/,
  );
  expect(afterEdit(works, (context) => setRegion(context, press, "region", "x".repeat(33)))).toMatch(
    /at most 32 characters/,
  );
});

const host = (name: string) =>
  must(
    [...office.host.values()].find((host) => host.name === name),
    name,
  );
const segment = (name: string) =>
  must(
    [...office.segment.values()].find((segment) => segment.name === name),
    name,
  );
/**
 * The office with a kept probe, a forward and a binding that all point at one host, and a probe from a port.
 */
const pointed = donePlan(
  afterEdit(office, (context) => {
    const { edits } = context;
    const store = host("Image store");
    edits.put("forward", {
      id: testId("forward", "f"),
      name: "pictures",
      line: must([...office.line.keys()][0], "a line"),
      protocol: "tcp",
      ports: [443, 443],
      host: store.id,
      toPort: null,
      hairpin: false,
      sources: [],
      until: null,
    });
    edits.patch("device", device(office, "Lower switch").id, {
      protections: { ...device(office, "Lower switch").protections, bound: [store.id] },
    });
    keepProbe(
      context,
      asClient(
        { at: "host", host: host("PC Reception 1").id },
        { to: "host", host: store.id, service: null },
      ),
      { name: "to the store", passes: true, segment: segment("Staff").id },
    );
    keepProbe(
      context,
      asClient(
        { at: "host", host: host("PC Reception 1").id },
        { to: "forward", forward: testId("forward", "f") },
      ),
      { name: "from outside", passes: true, segment: null },
    );
    return keepProbe(
      context,
      asClient({ at: "host", host: host("Card terminal 1").id }, { to: "internet", service: null }),
      { name: "the bank", passes: true, segment: segment("Staff").id },
    );
  }),
);

test("what goes is forgotten everywhere; what only asked for a segment keeps the rest", () => {
  const gone = donePlan(afterEdit(pointed, ({ edits }) => removeHost(edits, host("Image store").id)));
  expect([
    gone.forward.size,
    [...gone.expectation.values()].map((expectation) => expectation.name),
    gone.device.get(device(office, "Lower switch").id)?.protections.bound,
  ]).toEqual([0, ["the bank"], []]);
  const staffless = donePlan(afterEdit(pointed, ({ edits }) => removeSegment(edits, segment("Staff").id)));
  expect(
    [...staffless.expectation.values()].map((expectation) => [expectation.name, expectation.segment]),
  ).toEqual(
    expect.arrayContaining([
      ["the bank", null],
      ["to the store", null],
    ]),
  );
  const serverless = donePlan(
    afterEdit(pointed, ({ edits }) => removeHost(edits, host("Sign-in server 1").id)),
  );
  expect([...serverless.signIn.values()][0]?.servers).toEqual([host("Sign-in server 2").id]);
  const switchless = afterEdit(pointed, ({ edits }) =>
    removeDevice(edits, device(office, "Upper switch").id),
  );
  expect(typeof switchless).toBe("object");
});

test("a kept probe needs a name of its own", () => {
  const question = asClient(
    { at: "host", host: host("Card terminal 1").id },
    { to: "internet", service: null },
  );
  expect(
    afterEdit(pointed, (context) =>
      keepProbe(context, question, { name: "the bank", passes: true, segment: null }),
    ),
  ).toBe('A probe is kept as "the bank" already.');
  expect(
    afterEdit(pointed, (context) =>
      keepProbe(context, question, { name: "  ", passes: true, segment: null }),
    ),
  ).toMatch(/^Give the probe a name/);
});
