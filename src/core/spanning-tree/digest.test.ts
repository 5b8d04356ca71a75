import { must } from "../kernel";
import { BLANK_TREE, vid } from "../plan";
import { configurationDigest } from "./digest";

const digestOf = (instanceOf: (vid: number) => number): string => {
  const vids = new Map<number, number[]>();
  for (let vlan = 1; vlan < 4095; vlan += 1) {
    const instance = instanceOf(vlan);
    if (instance > 0) vids.set(instance, [...(vids.get(instance) ?? []), vlan]);
  }
  const instances = [...vids].map(([number, all]) => ({
    number,
    vids: all.map((number) => must(vid(number), "a VLAN ID")),
    priority: 32_768,
  }));
  return configurationDigest({ tree: { ...BLANK_TREE, instances } });
};

test.each([
  ["every VLAN in the common tree", () => 0, "AC36177F50283CD4B83821D8AB26DE62"],
  ["every VLAN in instance 1", () => 1, "E13A80F11ED0856ACD4EE3476941C73B"],
  ["VLAN ID modulo 32, and one", (number: number) => (number % 32) + 1, "9D145C267DBE9FB5D893441BE3BA08CE"],
] as const)("IEEE 802.1Q table 13-2: %s", (_, instanceOf, digest) => {
  expect(digestOf(instanceOf)).toBe(digest);
});
