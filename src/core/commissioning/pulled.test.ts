import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { afterEdits, BLANK_LINK, BLANK_TREE, PlanEdits, PlanIndex } from "../plan";
import { testId } from "../testing/build-plan";
import { cablesOnRings } from "./pulled";

const index = PlanIndex.of(fennelStreet());
const isSwitch = (port: string) =>
  index.plan.device.get(index.plan.port.get(port)?.device ?? "")?.bridging === "vlan";
const link = must(
  [...index.plan.link.values()].find(({ a, b }) => isSwitch(a) && isSwitch(b)),
  "a cable between switches",
);

/** The practice without any tree, with a second cable beside one between switches. */
function twoCables(areOne: boolean): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const id of index.plan.device.keys())
    edits.patch("device", id, { tree: { ...BLANK_TREE, kind: "none" } });
  const beside = [link.a, link.b].map((end) => {
    const own = must(index.plan.port.get(end), "an end");
    const free = must(
      index
        .portsOf(own.device)
        .find(({ id }) => index.linkAt(id) === undefined && index.hostsAt(id).length === 0),
      "a free port",
    );
    const lag = areOne ? testId("lag", own.device) : null;
    if (lag !== null) edits.put("lag", { id: lag, device: own.device, name: "Up", mode: "active" });
    edits.patch("port", own.id, { lag });
    edits.patch("port", free.id, { lag, tagged: own.tagged, untagged: own.untagged, pvid: own.pvid });
    return free.id;
  });
  const [a = "", b = ""] = beside;
  edits.put("link", { ...BLANK_LINK, id: testId("link", "second"), a, b });
  return must(afterEdits(index, edits), "a plan");
}

test("cables that are one stand in for one another; two that are not are a loop, no spare way", () => {
  expect(
    cablesOnRings(twoCables(true))
      .map(({ id }) => id)
      .sort(),
  ).toEqual([link.id, testId("link", "second")].sort());
  expect(cablesOnRings(twoCables(false))).toEqual([]);
});
