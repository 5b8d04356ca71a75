import { bramblewick } from "../../../../demo/bramblewick";
import { delegatedText, readDelegated } from "./delegated-text";
import { numberAll6 } from "../addressing/number6";
import { containsPrefix } from "../../address";
import { must } from "../../kernel";
import { afterEdit, donePlan } from "../../testing/after-edit";

test.each([
  ["", "none"],
  ["-", "none"],
  ["/56", "/56"],
  ["/60, always", "/60, always"],
  ["2001:db8:24::/56", "2001:db8:24::/56"],
  ["2001:DB8:24::/56; stays", "2001:db8:24::/56, always"],
  ["2001:db8:24::/48, changes", "2001:db8:24::/48"],
])("%s is read as %s, and read again the same", (text, said) => {
  const read = readDelegated(text);
  if (typeof read === "string") throw new Error(read);
  expect(delegatedText(read)).toBe(said);
  expect(readDelegated(said)).toEqual(read);
});

test.each([
  ["/72", /from \/32 to \/64, and this one has \/72/],
  ["/8", /has \/8/],
  ["10.0.0.0/8", /is no prefix/],
  ["2001:db8::1/56", /is no prefix/],
  ["a lot", /is no prefix/],
])("%s is refused with what to write", (text, why) => {
  expect(readDelegated(text)).toMatch(why);
});

test("subnets come out of what a line delegates where the site has no block of its own", () => {
  const delegated = readDelegated("2001:db8:24::/56");
  if (typeof delegated === "string") throw new Error(delegated);
  const before = bramblewick();
  expect(afterEdit(before, numberAll6)).toMatch(/no IPv6 block/);
  const plan = donePlan(
    afterEdit(before, (context) => {
      for (const line of context.edits.all("line")) context.edits.patch("line", line.id, { delegated });
      return numberAll6(context);
    }),
  );
  const block = must(delegated.prefix, "the prefix");
  const own = [...plan.segment.values()].flatMap(({ prefixes6 }) => prefixes6);
  expect(own.length).toBeGreaterThan(5);
  expect(own.every((prefix) => containsPrefix(block, prefix))).toBe(true);
});
