import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { SURVEYS } from "../../../demo/surveys";
import { formatAddress, parseAddress, parsePrefix } from "../address";
import { must } from "../kernel";
import { applyChanges, PlanIndex, type Plan } from "../plan";
import { numberAll6, plan as runPlanner } from "../planners";
import { draftPlan, USUAL_PARTS } from "../survey";
import { testId } from "../testing/build-plan";
import { surveyPlan } from "../testing/survey-plan";
import { hostsFile, namedAddresses, reservationTable, zoneFiles, type ZoneFile } from "./zone-file";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick()];

/** The plan with an IPv6 subnet for every segment, too. */
function with6(plan: Plan): Plan {
  const site = {
    ...plan.site,
    blocks: [...plan.site.blocks, must(parsePrefix("fd24:5a10:3c01::/48"), "a block")],
  };
  let n = 0;
  const { batch, refusal } = runPlanner(
    PlanIndex.of({ ...plan, site }),
    () => testId("zones", `${(n += 1)}`),
    { planner: "test", summary: "", args: null },
    (context) => numberAll6(context),
  );
  const applied = applyChanges({ ...plan, site }, must(batch, refusal ?? "a batch").changes);
  return must(applied.ok ? applied.value : null, "the changes apply");
}

/** The records of one type of a zone file: name and data. */
const recordsOf = (file: ZoneFile, type: string): [string, string][] =>
  file.text.split("\n").flatMap((line) => {
    const [name, , kind, data] = line.split("\t");
    return kind === type && name !== undefined && name !== "@" && data !== undefined
      ? [[name, data] as [string, string]]
      : [];
  });

/**
 * The address that a name of a reverse zone stands for, put together the other way round (RFC 1035 section
 * 3.5, RFC 3596 section 2.5).
 */
function addressOf(name: string): string {
  const labels = name
    .replace(/\.(in-addr|ip6)\.arpa$/, "")
    .split(".")
    .reverse();
  return name.endsWith(".in-addr.arpa")
    ? labels.join(".")
    : formatAddress(must(parseAddress(must(labels.join("").match(/.{4}/g), "nibbles").join(":")), name));
}

/** What a survey is drafted into. */
function draftedFrom(survey: (typeof SURVEYS)[number]): Plan {
  const before = surveyPlan(survey);
  let n = 0;
  const { batch } = runPlanner(
    PlanIndex.of(before),
    () => testId("drafted", `${survey.name} ${(n += 1)}`),
    { planner: "test", summary: "", args: null },
    (context) => {
      draftPlan(context, USUAL_PARTS);
    },
  );
  const applied = applyChanges(before, must(batch, "a draft").changes);
  return must(applied.ok ? applied.value : null, "the draft applies");
}

describe("a name server's own checker accepts every zone", () => {
  test.each([
    ...PLANS.map((plan) => [plan.site.name, with6(plan)] as const),
    ...SURVEYS.map((survey) => [`${survey.name}, drafted`, draftedFrom(survey)] as const),
  ])("%s", (_, plan) => {
    const folder = mkdtempSync(join(tmpdir(), "zones-"));
    const { files } = must(zoneFiles(PlanIndex.of(plan), 7), "zones");
    expect(files.length).toBeGreaterThan(3);
    for (const [i, { zone, text }] of files.entries()) {
      const file = join(folder, `${i}.zone`);
      writeFileSync(file, text);
      const strict = ["-k", "fail", "-n", "fail", "-m", "fail"];
      expect(execFileSync("named-checkzone", [...strict, zone, file], { encoding: "utf8" })).toMatch(
        /OK\s*$/,
      );
    }
  });
});

describe("zone files", () => {
  test.each(PLANS.map((plan) => [plan.site.name, plan] as const))(
    "%s: every fixed address has its name forward, and its own address leads back to that name",
    (_name, plan) => {
      const index = PlanIndex.of(with6(plan));
      const { named } = namedAddresses(index);
      const files = must(zoneFiles(index, 7), "zones").files;
      const forward = files
        .filter((file) => !file.zone.endsWith("arpa") || file.zone.endsWith("home.arpa"))
        .flatMap((file) =>
          [...recordsOf(file, "A"), ...recordsOf(file, "AAAA")].map(
            ([label, data]) => `${label}.${file.zone}. ${data}`,
          ),
        );
      const reverse = files.flatMap((file) =>
        recordsOf(file, "PTR").map(([label, data]) => `${data} ${addressOf(`${label}.${file.zone}`)}`),
      );
      const wanted = named.map(
        (namedAddress) =>
          `${namedAddress.label}.${namedAddress.domain}. ${formatAddress(namedAddress.address)}`,
      );
      const fixed = [...index.plan.host.values()]
        .filter((host) => host.manner !== "dynamic")
        .flatMap((host) => [host.ipv4, host.ipv6])
        .filter((address) => address !== null);
      expect(wanted.length).toBeGreaterThanOrEqual(fixed.length);
      for (const address of fixed)
        expect(named.some((namedAddress) => namedAddress.address === address)).toBe(true);
      expect([...reverse].sort()).toEqual([...wanted].sort());
      for (const record of wanted) expect(forward).toContain(record);
      // The only name that is nobody's of the register is the name server's own.
      expect(
        forward.filter((record) => !wanted.includes(record)).every((record) => record.startsWith("ns.")),
      ).toBe(true);
      for (const file of files) expect(file.text).toContain("\t7\t; serial");
      expect(hostsFile(index).trimEnd().split("\n")).toHaveLength(named.length);
    },
  );

  test("without anyone to answer for names there is no zone", () => {
    const plan = fennelStreet();
    const mute: Plan = {
      ...plan,
      segment: new Map(
        [...plan.segment].map(([id, segment]) => [id, { ...segment, dns: [], gatewayInterface: null }]),
      ),
    };
    expect(zoneFiles(PlanIndex.of(mute), 1)).toBeNull();
  });

  test("a name with nothing that DNS can hold is given back, not bent into another's", () => {
    const plan = fennelStreet();
    const host = must(
      [...plan.host.values()].find((host) => host.ipv4 !== null && host.manner === "reserved"),
      "a reserved host",
    );
    const odd: Plan = { ...plan, host: new Map(plan.host).set(host.id, { ...host, name: "≈ 機 ≈" }) };
    const zones = must(zoneFiles(PlanIndex.of(odd), 1), "zones");
    expect(zones.leftOut).toEqual(["≈ 機 ≈"]);
    const whole = must(zoneFiles(PlanIndex.of(plan), 1), "zones");
    const count = (of: typeof zones) => of.files.reduce((sum, file) => sum + file.records, 0);
    expect(count(whole) - count(zones)).toBe(2);
  });

  test("the table of reservations has a row for each, with the server that has to be told", () => {
    for (const plan of PLANS) {
      const [heads, ...rows] = reservationTable(PlanIndex.of(plan));
      const reserved = [...plan.host.values()].filter(
        (host) => host.manner === "reserved" && host.ipv4 !== null,
      );
      expect(heads).toEqual(["Segment", "Server", "Address", "MAC", "Host name", "Device"]);
      expect(rows.map((row) => row[2]).sort()).toEqual(
        reserved.map((host) => formatAddress(must(host.ipv4, "an address"))).sort(),
      );
      expect(rows.every((row) => row[0] !== "" && row[1] !== "")).toBe(true);
    }
  });
});
