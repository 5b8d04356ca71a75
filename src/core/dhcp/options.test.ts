import fc from "fast-check";
import { OPTION_KINDS, readOption } from "./options";

test.each([
  ["42 10.24.60.10", { code: 42, name: "NTP servers", value: "10.24.60.10" }],
  [
    "NTP servers 10.24.60.10, 10.24.60.11",
    { code: 42, name: "NTP servers", value: "10.24.60.10, 10.24.60.11" },
  ],
  ["66=boot.fennel.internal", { code: 66, name: "TFTP server name", value: "boot.fennel.internal" }],
  ["224 anything", { code: 224, name: "option 224", value: "anything" }],
  ["43 01:04:0a:18", { code: 43, name: "vendor-specific information", value: "01:04:0a:18" }],
  ["26 1500", { code: 26, name: "interface MTU", value: "1500" }],
  ["ip forwarding off", { code: 19, name: "IP forwarding", value: "off" }],
])("%s", (text, wanted) => {
  expect(readOption(text)).toEqual(wanted);
});

test.each([
  ["42 ten", /"ten" is no value for NTP servers: IPv4 addresses/],
  ["26 70000", /whole number up to 65535/],
  ["3 10.24.20.1", /Option 3 is the gateway, which the scope has a field for/],
  ["255 x", /run from 1 to 254/],
  ["hello", /is no option; write its code or its name/],
  ["43 xyz", /bytes in hexadecimal/],
  ["28 10.1.1.1, 10.1.1.2", /one IPv4 address/],
  ["", /is no option/],
  ["19 maybe", /on or off/],
])("%s is refused", (text, sentence) => {
  expect(readOption(text)).toMatch(sentence);
});

test("codes stand once, and any text is read or has a sentence", () => {
  expect(new Set(OPTION_KINDS.map((kind) => kind.code)).size).toBe(OPTION_KINDS.length);
  fc.assert(
    fc.property(fc.string({ maxLength: 40 }), (text) => {
      const read = readOption(text);
      if (typeof read === "string") expect(read).toMatch(/\.$/);
      else expect(read.code).toBeGreaterThan(0);
    }),
  );
});
