import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { laidBeside } from "../listening";
import { must } from "../kernel";
import { PlanIndex, type Host } from "../plan";
import { heardAt } from "../testing/hear";
import { plant } from "../testing/faults";
import { dice } from "../testing/plants";
import type { Reading } from "./predict";
import { Study } from "./study";

const INLINE = { position: "inline", mac: null } as const;
const portOf = ({ attachment }: Host): string | null => (attachment.at === "port" ? attachment.port : null);

/** What was heard at a port of a site, as readings. */
function readingsAt(plan: PlanIndex, truth: PlanIndex, port: string, hosts: readonly Host[]): Reading[] {
  const { lines, heard } = laidBeside(plan, port, INLINE, heardAt(truth, port, hosts));
  const given = lines.flatMap(({ given: given, verdict }) =>
    given !== null && verdict === "otherwise" ? [given] : [],
  );
  const text = heard.map(([about, value]) => `${about}: ${value}`).join("\n");
  return [
    ...given.map(({ question, text: read }, at): Reading => ({
      id: String(at),
      ask: { what: "try", question },
      seen: { is: "text", text: read },
    })),
    { id: "heard", ask: { what: "listen", port }, seen: { is: "text", text } },
  ];
}

test("what is heard where somebody complains leaves the fault among those that explain it all", () => {
  const roll = dice(1130);
  let [told, kept] = [0, 0];
  const lost: string[] = [];
  for (const plan of [lockkeepersHouse(), fennelStreet()]) {
    const study = new Study(PlanIndex.of(plan));
    for (let i = 0; i < 120; i += 1) {
      const fault = plant(plan, roll);
      if (fault === null) continue;
      const hosts = fault.notice.flatMap((id) => fault.plan.host.get(id) ?? []);
      const port = hosts.flatMap((host) => portOf(host) ?? [])[0];
      if (port === undefined) continue;
      const readings = readingsAt(study.index, PlanIndex.of(fault.plan), port, hosts.slice(0, 4));
      if (readings.every((reading) => study.isAsPlanned(reading))) continue;
      told += 1;
      const { candidates } = study.diagnose(readings);
      const all = candidates.filter(({ explains }) => explains.every(Boolean));
      const isKept = all.some(({ suspect }) => suspect.subjects.some(({ id }) => fault.blame.includes(id)));
      if (isKept) kept += 1;
      else lost.push(fault.kind);
    }
  }
  expect({ lost, isEnough: told >= 15, isKept: kept === told }).toEqual({
    lost: [],
    isEnough: true,
    isKept: true,
  });
});

test("what was not heard says nothing; what was heard shuts out what would be heard otherwise", () => {
  const index = PlanIndex.of(fennelStreet());
  const study = new Study(index);
  const port = must(
    [...index.plan.port.values()].find(({ tagged }) => tagged.length > 3),
    "a trunk",
  );
  const [first, second] = port.tagged;
  const heard = (text: string): Reading => ({
    id: "1",
    ask: { what: "listen", port: port.id },
    seen: { is: "text", text },
  });
  expect(study.isAsPlanned(heard(""))).toBe(true);
  expect(study.isAsPlanned(heard(`VLAN ${first}: tagged`))).toBe(true);
  const { candidates } = study.diagnose([heard(`VLAN ${first}: tagged\nVLAN 77: tagged`)]);
  expect(candidates).toEqual([]);
  const missing = study
    .suspects([{ ...heard("VLAN 77: tagged") }])
    .filter(({ kind }) => kind === "vlanMissing");
  const about = missing.filter(({ subjects }) => subjects.some(({ id }) => id === port.id));
  const agreesWith = (text: string) =>
    study.among([heard(`VLAN 77: tagged`), heard(text)], about).candidates.length;
  expect([agreesWith(`VLAN ${first}: tagged`), agreesWith(`VLAN ${second}: tagged`)]).toEqual([0, 0]);
});
