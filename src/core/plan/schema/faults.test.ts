import { z } from "zod";
import { ip } from "../../testing/written";
import { BLANK_TREE } from "../blank";
import { aDevice, aHost, aLink, aPort, aScope, aVlan, aZone, testId } from "../../testing/build-plan";
import { entityFault, issueSentence, valueAt } from "./faults";
import { vid } from "./fields";
import { SCHEMAS, type Entity, type EntityOf, type Kind } from "./kinds";
import { questionText, readQuestion, type ProbeQuestion } from "./reach";

// What a person reads of a value that can't stand in a plan.

const host = aHost({ name: "Scales" });
const port = aPort({ device: testId("device", "Mill"), label: "1" });
/** The first fault of an entity as a file or a request writes it, by its field; "" where there is none. */
function saidOf<K extends Kind>(
  kind: K,
  entity: EntityOf<K>,
  wrong: Readonly<Record<string, unknown>>,
): string {
  const text = { ...(z.encode(SCHEMAS[kind] as z.ZodType, entity) as object), ...wrong };
  const read = SCHEMAS[kind].safeParse(JSON.parse(JSON.stringify(text)));
  const issue = read.error?.issues[0];
  return issue === undefined
    ? ""
    : `${issue.path.join(".")}: ${issueSentence(issue, valueAt(text, issue.path))}`;
}
const ofHost = (wrong: Readonly<Record<string, unknown>>) => saidOf("host", host, wrong);

describe("a value that does not belong where it stands", () => {
  test("nothing is said of what does", () => {
    expect(ofHost({})).toBe("");
  });

  test("another type than the field's is told with what belongs there", () => {
    expect(ofHost({ place: 7 })).toBe("place: a text belongs here, not 7.");
    expect(ofHost({ dns: null })).toBe("dns: a list belongs here, not null.");
    expect(saidOf("port", port, { position: "first" })).toBe('position: A whole number, not "first".');
  });

  test("a field that is missing, and one that nobody knows", () => {
    expect(ofHost({ place: undefined })).toBe("place: is missing; a text belongs here.");
    expect(ofHost({ placing: 1, weight: 2 })).toBe(
      ': has a field that a plan does not know: "placing", "weight"; remove it.',
    );
  });

  test("one of a few words", () => {
    expect(ofHost({ manner: "sometimes" })).toMatch(
      /^manner: "typed" or "reserved" or "dynamic".* belongs here, not "sometimes"\.$/,
    );
  });

  test("none of the forms that a place, an end or a goal can have", () => {
    expect(ofHost({ attachment: { at: "moon" } })).toBe(
      'attachment.at: "moon" is none of the forms that belong here.',
    );
    expect(saidOf("scope", aScope({ segment: testId("segment", "Crew") }), { family: 5 })).toBe(
      "family: 5 is none of the forms that belong here.",
    );
  });

  test("what is too large or too small, with the limit and the value", () => {
    expect(saidOf("link", aLink({ a: testId("port", "a"), b: testId("port", "b") }), {})).toBe("");
    expect(saidOf("port", port, { treePriority: 256 })).toBe(
      "treePriority: is too large; at most 240 (256).",
    );
    expect(saidOf("port", port, { treePriority: -16 })).toBe("treePriority: is too small; at least 0 (-16).");
    expect(ofHost({ place: "x".repeat(121) })).toMatch(/^place: At most 120 characters \("x{56}…\)\.$/);
    expect(ofHost({ name: "" })).toBe('name: A name can\'t be empty ("").');
    expect(saidOf("scope", aScope({ segment: testId("segment", "Crew") }), { leaseSeconds: 59 })).toBe(
      "leaseSeconds: A lease lasts at least 60 seconds (59).",
    );
  });

  test("what is written in another form, its own sentence first", () => {
    expect(ofHost({ id: "Scales" })).toBe('id: An id is a UUID in lower case, not "Scales".');
    expect(ofHost({ ipv4: "10.24.20.999" })).toBe(
      'ipv4: "10.24.20.999" is not an IPv4 address such as 10.24.20.1.',
    );
    expect(issueOf(z.string().regex(/^a$/), "b")).toBe('"b" is not written as it should be.');
  });

  test("a value of sixty characters is shown whole, a longer one by its beginning", () => {
    const digits = z.int();
    expect(issueOf(digits, "x".repeat(58))).toBe(`a number belongs here, not "${"x".repeat(58)}".`);
    expect(issueOf(digits, "x".repeat(59))).toBe(`a number belongs here, not "${"x".repeat(56)}….`);
    expect(issueOf(z.date(), "noon")).toBe('date belongs here, not "noon".');
    expect(issueOf(z.date(), undefined)).toBe("is missing; date belongs here.");
    expect(issueOf(z.strictObject({}), () => 1)).toBe("an object belongs here, not nothing.");
  });
});

/** What is said of one value. */
function issueOf(schema: z.ZodType, value: unknown): string {
  const issue = schema.safeParse(value).error?.issues[0];
  return issue === undefined ? "" : issueSentence(issue, value);
}

test("what lies at a path; nothing where it leads nowhere", () => {
  const root = { hosts: [{ name: "Scales", ipv4: null }] };
  const at = (...path: readonly PropertyKey[]) => valueAt(root, path);
  expect(at()).toBe(root);
  expect(at("hosts", 0, "name")).toBe("Scales");
  expect(at("hosts", 0, "ipv4")).toBeNull();
  expect([at("hosts", 1, "name"), at("hosts", 0, "ipv4", "length")]).toEqual([undefined, undefined]);
  // A text has a length, and is no place to go on from.
  expect(at("hosts", 0, "name", "length")).toBeUndefined();
});

describe("why an entity can't stand in a plan", () => {
  const device = aDevice({ name: "Mill" });
  const wall: EntityOf<"wall"> = {
    id: testId("wall", "w"),
    from: { at: "zone", zone: aZone().id },
    to: { at: "internet" },
    door: "open",
    services: [],
    reason: "",
    conduit: null,
  };
  const service = { name: "web", protocol: "tcp" as const, ports: [[80, 80] as [number, number]] };
  const template = { id: testId("template", "t"), name: "Mine", ending: "txt", text: "one\ntwo\t" };

  const forward: EntityOf<"forward"> = {
    ...{ id: testId("forward", "f"), name: "Web", line: testId("line", "l"), protocol: "tcp" },
    ...{ ports: [80, 443], host: host.id, toPort: null, hairpin: false, sources: [], until: null },
  };

  test.each<[string, Kind, Entity]>([
    ["a device", "device", device],
    ["a port in the highest step", "port", { ...port, treePriority: 240 }],
    ["a bridge priority in its highest step", "device", withPriority(61_440)],
    ["a VLAN of each end", "vlan", aVlan({ vid: 1 as never })],
    ["a VLAN of each end", "vlan", aVlan({ vid: 4094 as never })],
    ["a wall that is open", "wall", wall],
    ["a wall for services", "wall", { ...wall, door: "services", services: [service] }],
    ["a range of one port", "forward", { ...forward, ports: [80, 80] }],
    ["a template of several lines", "template", template],
    ["the first day that there is", "forward", { ...forward, until: "1970-01-01" }],
  ])("%s can", (_, kind, entity) => {
    expect(entityFault(kind, entity)).toBeNull();
  });

  test.each<[string, Kind, Entity]>([
    ["treePriority: A port's priority comes in steps of 16 (8).", "port", { ...port, treePriority: 8 }],
    ["tree perVlan priority: A bridge priority comes in steps of 4096 (4097).", "device", withPriority(4097)],
    ['name: A name can\'t begin or end with a space ("Mill ").', "device", { ...device, name: "Mill " }],
    ['name: A name can\'t begin or end with a space (" Mill").', "device", { ...device, name: " Mill" }],
    [
      'until: A day from 1970 on, written as 2027-06-30 ("1969-12-31").',
      "forward",
      {
        ...forward,
        until: "1969-12-31",
      },
    ],
    ["ports: A port range runs from low to high ([443,80]).", "forward", { ...forward, ports: [443, 80] }],
    ['text: No control characters here ("one\\u0000").', "template", { ...template, text: "one\u0000" }],
    ["Services are listed exactly when the door is for services", "wall", { ...wall, services: [service] }],
    ["Services are listed exactly when the door is for services", "wall", { ...wall, door: "services" }],
    [
      "services ports: A port range runs from low to high ([443,80]).",
      "wall",
      { ...wall, door: "services", services: [{ ...service, ports: [[443, 80]] }] },
    ],
  ])("%s", (sentence, kind, entity) => {
    expect(entityFault(kind, entity)?.slice(0, sentence.length)).toBe(sentence);
  });

  function withPriority(priority: number): Entity {
    return aDevice({ name: "Mill", tree: { ...BLANK_TREE, perVlan: [{ vid: 20 as never, priority }] } });
  }
});

test("a VLAN ID is a whole number from 1 to 4094", () => {
  expect([0, 1, 4094, 4095, 1.5, Number.NaN].map(vid)).toEqual([null, 1, 4094, null, null, null]);
});

test("a probe's question comes back from its line; any other line is none", () => {
  const question: ProbeQuestion = {
    from: { at: "host", host: host.id },
    as: { as: "spoofer", address: ip("10.24.20.7") },
    mac: null,
    family: 4,
    goal: { to: "internet", service: null },
  } as never;
  const line = questionText(question);
  expect(readQuestion(line)).toEqual(question);
  for (const none of ["", "{", "null", "{}", line.replace('"family":4', '"family":5')])
    expect(readQuestion(none)).toBeNull();
});
