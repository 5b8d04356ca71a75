import { createHash, createHmac } from "node:crypto";
import fc from "fast-check";
import { hexOf, hmacMd5, md5 } from "./md5";

const octets = (text: string) => new TextEncoder().encode(text);
const ofHex = (hex: string) => Uint8Array.from(hex.match(/../g) ?? [], (pair) => parseInt(pair, 16));

test.each([
  ["", "d41d8cd98f00b204e9800998ecf8427e"],
  ["a", "0cc175b9c0f1b6a831c399e269772661"],
  ["abc", "900150983cd24fb0d6963f7d28e17f72"],
  ["message digest", "f96b697d7cb7938d525a2f31aaf161d0"],
  ["abcdefghijklmnopqrstuvwxyz", "c3fcd3d76192e4007dfb496cca67e13b"],
  ["ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789", "d174ab98d277d9f5a5611c2c9f419d9f"],
  ["1234567890".repeat(8), "57edf4a22be3c955ac49da2e2107b67a"],
])("RFC 1321 appendix A.5: %s", (text, digest) => {
  expect(hexOf(md5(octets(text)))).toBe(digest.toUpperCase());
});

test.each([
  [ofHex("0b".repeat(16)), octets("Hi There"), "9294727a3638bb1c13f48ef8158bfc9d"],
  [octets("Jefe"), octets("what do ya want for nothing?"), "750c783e6ab0b503eaa86e310a5db738"],
  [ofHex("aa".repeat(16)), ofHex("dd".repeat(50)), "56be34521d144c88dbb8c733f0e8b3f6"],
  [
    ofHex("0102030405060708090a0b0c0d0e0f10111213141516171819"),
    ofHex("cd".repeat(50)),
    "697eaf0aca3a3aea3a75164746ffaa79",
  ],
  [ofHex("0c".repeat(16)), octets("Test With Truncation"), "56461ef2342edc00f9bab995690efd4c"],
  [
    ofHex("aa".repeat(80)),
    octets("Test Using Larger Than Block-Size Key - Hash Key First"),
    "6b1ab7fe4bd7bf8f0b62e6ce61b9d0cd",
  ],
  [
    ofHex("aa".repeat(80)),
    octets("Test Using Larger Than Block-Size Key and Larger Than One Block-Size Data"),
    "6f630fad67cda0ee1fb1f562db3aa53e",
  ],
])("RFC 2202 section 2, key %#", (key, message, digest) => {
  expect(hexOf(hmacMd5(key, message))).toBe(digest.toUpperCase());
});

test("any octets are as another maker's code has them", () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), fc.uint8Array({ maxLength: 100 }), (message, key) => {
      expect(hexOf(md5(message))).toBe(createHash("md5").update(message).digest("hex").toUpperCase());
      expect(hexOf(hmacMd5(key, message))).toBe(
        createHmac("md5", key).update(message).digest("hex").toUpperCase(),
      );
    }),
  );
});
