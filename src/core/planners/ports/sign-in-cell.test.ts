import fc from "fast-check";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanIndex, vid, type Plan } from "../../plan";
import { SERVICES } from "../../policy";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { pasteSignIns, SIGN_IN_COLUMNS, signInCellText, type SignInColumn } from "./sign-in-cell";

const plan = fennelStreet();
const profileIn = (on: Plan) => must([...on.signIn.values()][0], "a profile");
const { id } = profileIn(plan);
const write = (on: Plan, column: SignInColumn, text: string) =>
  afterEdit(on, (context) => pasteSignIns(context, [[text]], column, [id]));
const written = (column: SignInColumn, text: string) => {
  const done = donePlan(write(plan, column, text));
  return signInCellText(PlanIndex.of(done), profileIn(done), column);
};

const vidOrNone = fc.constantFrom(null, ...[...plan.vlan.values()].map((vlan) => vlan.vid));
const seconds = fc.integer({ min: 1, max: 900 });
const profiles = fc.record({
  servers: fc.subarray([...plan.host.values()].slice(0, 4).map((host) => host.id)),
  port: fc.integer({ min: 1, max: 65_535 }),
  byMac: fc.boolean(),
  visitors: vidOrNone,
  failed: vidOrNone,
  serverDown: vidOrNone,
  serverDownVoice: vidOrNone,
  stage: fc.constantFrom("watch" as const, "limited" as const, "closed" as const),
  before: fc.subarray(SERVICES.filter(({ name }) => ["dhcp", "https", "ntp"].includes(name))),
  hosts: fc.constantFrom("one" as const, "phone" as const, "several" as const, "many" as const),
  order: fc.constantFrom("signInFirst" as const, "macFirst" as const),
  signInWins: fc.boolean(),
  byAnswer: fc.boolean(),
  accountingPort: fc.option(fc.integer({ min: 1, max: 65_535 })),
  changePort: fc.option(fc.integer({ min: 1, max: 65_535 })),
  timers: fc.record({
    waitSeconds: seconds,
    tries: fc.integer({ min: 1, max: 10 }),
    quietSeconds: fc.nat(65_535),
    againSeconds: fc.option(seconds),
    serverSeconds: seconds,
    serverTries: fc.integer({ min: 1, max: 10 }),
    deadSeconds: fc.nat(86_400),
    testSeconds: fc.option(seconds),
  }),
  sends: fc
    .uniqueArray(fc.integer({ min: 1, max: 255 }), { maxLength: 5 })
    .map((all) => all.sort((a, b) => a - b)),
  secretPlace: fc.constantFrom("", "the safe"),
  note: fc.constantFrom("", "desks"),
});

test("any profile, written as it is said in a row, is the same profile", () => {
  fc.assert(
    fc.property(profiles, (fields) => {
      const from = { ...profileIn(plan), ...fields };
      const index = PlanIndex.of(
        donePlan(
          afterEdit(plan, ({ edits }) => {
            edits.patch("signIn", id, fields);
            return null;
          }),
        ),
      );
      const row = SIGN_IN_COLUMNS.map(([column]) => signInCellText(index, from, column));
      const back = donePlan(afterEdit(plan, (context) => pasteSignIns(context, [row], "name", [id])));
      expect(profileIn(back)).toEqual(from);
    }),
    { numRuns: 60 },
  );
});

test("VLANs are read by number, by segment, or none", () => {
  expect(written("visitors", "VLAN 90")).toBe("90 Guests");
  expect(written("visitors", "guests")).toBe("90 Guests");
  expect(written("visitors", "no")).toBe("none");
  expect(profileIn(donePlan(write(plan, "failed", "20"))).failed).toBe(vid(20));
});

test.each<[SignInColumn, string, RegExp]>([
  ["name", "", /1 to 80 characters/],
  ["servers", "Sign-in server 9", /no device "Sign-in server 9" in the register/],
  ["stage", "open", /"open" is none of these: watch; limited; closed/],
  ["hosts", "12", /none of these: one device; a phone and one/],
  ["byMac", "perhaps", /neither yes nor no/],
  ["visitors", "4000", /no VLAN "4000"/],
  ["before", "everything else", /is not a service/],
  ["asks", "3", /write it like 3 x 30 s/],
  ["asks", "11 x 30 s", /up to 10 times/],
  ["asks", "3 x 2 h", /At most 1 h each time/],
  ["serverAsks", "2 x 1 h", /At most/],
  ["again", "0", /not from 1 s to/],
  ["dead", "2 d", /not from 1 s to 24 h/],
  ["test", "now", /is no time; write 60 s/],
  ["port", "70000", /no UDP port/],
  ["accounting", "x", /no UDP port/],
  ["sends", "Class, 300", /"300" is no attribute/],
  ["note", "x".repeat(121), /At most 120/],
])("%s %s is refused, and nothing changes", (column, text, says) => {
  expect(write(plan, column, text)).toMatch(says);
});
