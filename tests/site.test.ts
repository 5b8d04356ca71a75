import { differencesOf, siteCases } from "./support/site-cases";

// Every question that was put to the real thing, and every lease that it gave, is put to the probe.

const CASES = siteCases();

/** Where the probe says otherwise on purpose. */
const EXCEPTIONS: Readonly<Record<string, string>> = {
  "created-vlans":
    "A VLAN that a device has not created: in the plan membership alone " +
    "forwards, and that it is missing there is a finding (docs/plan-format.md).",
};

test("the cases are there", () =>
  expect([CASES.length, CASES.reduce((sum, siteCase) => sum + siteCase.expect.length, 0)]).toEqual([
    44, 81_779,
  ]));

test.each(CASES.map((siteCase) => [siteCase.name, siteCase] as const))("%s", (_, siteCase) => {
  const { judged, rows, leases } = differencesOf(siteCase);
  expect(judged).toBeGreaterThan(100);
  const said = rows.map(
    ({ row, outcome, delivered, answered }) =>
      `${row.from} to ${row.to} ${row.proto} ${row.port ?? ""}: really ` +
      `${row.delivered ? "delivered" : "lost"}, ${row.answered ? "answered" : "silent"}; ` +
      `the probe ${delivered ? "delivered" : "lost"}, ` +
      `${answered ? "answered" : `silent: ${outcome.cause?.sentence ?? ""}`}`,
  );
  if (EXCEPTIONS[siteCase.group] === undefined) expect([said.slice(0, 10), leases]).toEqual([[], []]);
  else expect(rows.length + leases.length).toBeGreaterThan(0);
});
