import fc from "fast-check";
import { must } from "../kernel";
import { CATALOGUE } from "../catalogue/kinds";
import { typingMistakes } from "./near-word";
import { readNeeds } from "./read-needs";

const short = (line: string) =>
  readNeeds(CATALOGUE, line).map((reading) =>
    reading.need === null
      ? reading.problem
      : `${reading.need.count} ${reading.need.what} ` +
        `(${reading.need.kind.word})${reading.need.wireless ? " wireless" : ""}`,
  );

test.each([
  [
    "3 PC, 2 phone+PC, 1 card terminal",
    ["3 PC (PC)", "2 phone with PC (phone with PC)", "1 card terminal (card terminal)"],
  ],
  ["2 PC, 1 fridge loger", ["2 PC (PC)", "1 fridge logger (sensor gateway)"]],
  [
    "1 records server; two auth servers\n60 guests",
    ["1 records server (server)", "2 auth server (server)", "60 guest (guest) wireless"],
  ],
  ["PCs", ["1 PC (PC)"]],
  ["4x camera", ["4 camera (camera)"]],
  ["4 x cameras", ["4 camera (camera)"]],
  ["a printer, an analyser", ["1 printer (printer)", "1 analyser (analyser)"]],
  ["waiting room screen", ["1 waiting room screen (screen)"]],
  ["6 I/O islands, 2 x-ray panels", ["6 I/O island (I/O island)", "2 x-ray panel (x-ray panel)"]],
  ["2 pc + phone, 1 phone with pc", ["2 phone with PC (phone with PC)", "1 phone with PC (phone with PC)"]],
  [
    "2 PC wireless, 3 laptop wired, 1 tablets (wired)",
    ["2 PC (PC) wireless", "3 laptop (laptop)", "1 tablet (tablet)"],
  ],
  [
    "1 nas, 2 NVR, 1 PACS, 3 VFDs",
    ["1 nas (storage)", "2 nvr (recorder)", "1 pacs (image store)", "3 vfd (drive)"],
  ],
  ["4 IP cameras, 1 multifunction printer", ["4 ip camera (camera)", "1 multifunction printer (printer)"]],
  ["  , ;\n", []],
  ["", []],
])("%j", (line, wanted) => {
  expect(short(line)).toEqual(wanted);
});

test("what is said of an item: power, growth, whose it is", () => {
  const [a, b, c, d] = readNeeds(
    CATALOGUE,
    "2 camera no PoE, 1 PC +40 %, 3 laptop for the Studio, 1 screen PoE",
  ).map((r) => must(r.need, "read"));
  expect([a?.poeClass, b?.growth, c?.group, d?.poeClass]).toEqual([null, 40, "Studio", 3]);
  expect(readNeeds(CATALOGUE, "1 camera class 4")[0]?.need?.poeClass).toBe(4);
  // A wireless device takes no power from a socket.
  expect(readNeeds(CATALOGUE, "1 camera wireless")[0]?.need?.poeClass).toBeNull();
});

test.each([
  ["0 PC", /between 1 and 9999/],
  ["12000 guests", /between 1 and 9999/],
  ["1 gateway", /"gateway" needs no line: the draft puts a gateway in the first cabinet/],
  ["2 office routers", /"office routers" needs no line/],
  ["3 holodecks", /"holodecks" is no kind of device known here/],
  ["3", /Write what there are 3 of/],
  ["7 wireless", /Write what there are 7 of/],
])("%j is a problem with a sentence", (line, sentence) => {
  expect(readNeeds(CATALOGUE, line)).toEqual([
    expect.objectContaining({ need: null, problem: expect.stringMatching(sentence) }),
  ]);
});

test("no word stands for two kinds, and every kind has other words than its own", () => {
  const words = CATALOGUE.flatMap(({ word, aliases }) =>
    [word, ...aliases].map((name) => name.toLowerCase()),
  );
  expect(words.filter((word, i) => words.indexOf(word) !== i)).toEqual([]);
  expect(CATALOGUE.filter(({ aliases }) => aliases.length < 2).map(({ word }) => word)).toEqual([]);
});

test("every kind is read by its word, one or many, and places are where the item stands", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 9999 }), fc.nat(CATALOGUE.length - 1), fc.boolean()), {
        minLength: 1,
        maxLength: 8,
      }),
      (items) => {
        const many = (word: string) => `${word}${/(s|x|ch)$/i.test(word) ? "es" : "s"}`;
        const texts = items.map(
          ([count, n, plural]) =>
            `${count} ${plural ? many(must(CATALOGUE[n], "a kind").word) : must(CATALOGUE[n], "a kind").word}`,
        );
        const line = texts.join(", ");
        const readings = readNeeds(CATALOGUE, line);
        expect(readings.map((r) => line.slice(r.start, r.end))).toEqual(texts);
        expect(readings.map((r) => [r.need?.count, r.need?.kind.word])).toEqual(
          items.map(([count, n]) => [count, CATALOGUE[n]?.word]),
        );
      },
    ),
  );
});

test("anything typed is read or has a sentence, and every item stands in one of them", () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 120, unit: "binary" }), (line) => {
      for (const reading of readNeeds(CATALOGUE, line)) {
        expect(line.slice(reading.start, reading.end).trim()).not.toBe("");
        if (reading.problem !== null) expect(reading.problem).toMatch(/\.$/);
        else expect(reading.need.count).toBeGreaterThan(0);
      }
      expect(readNeeds(CATALOGUE, line)).toHaveLength(
        line.split(/[,;\n]/).filter((part) => part.trim() !== "").length,
      );
    }),
  );
});

test("typing mistakes: the distance is a metric that a swap, a slip, a gap count one in", () => {
  expect(
    ["logger/loger", "camera/cmaera", "printer/pirnter", "server/sever"].map((pair) =>
      typingMistakes(pair.split("/")[0] ?? "", pair.split("/")[1] ?? "", 3),
    ),
  ).toEqual([1, 1, 1, 1]);
  fc.assert(
    fc.property(fc.string({ maxLength: 8 }), fc.string({ maxLength: 8 }), (a, b) => {
      expect(typingMistakes(a, b, 9)).toBe(typingMistakes(b, a, 9));
      expect(typingMistakes(a, b, 9) === 0).toBe(a === b);
    }),
  );
});
