import { z } from "zod";
import { JPEG, PROGRESSIVE_JPEG, withSegment } from "../../../tests/support/jpeg";
import { MOST_PHOTOS } from "../formats";
import { must } from "../kernel";
import { aTick } from "../testing/a-tick";
import { dice } from "../testing/plants";
import type { Recorded } from "./entry";
import { MOST_PHOTO_SIDE, plainJpeg } from "./jpeg";
import {
  MOST_PHOTO_BYTES,
  photoBytes,
  photosLeftBehind,
  photosNamed,
  photosOfFile,
  photosToFile,
  type Photo,
} from "./photo";

const id = (n: number) => `01a2254d-e987-7125-9e5a-${String(n).padStart(12, "0")}`;
const at = "2026-11-29T09:00:00.000Z";
const BOTH = [
  ["baseline", JPEG],
  ["progressive", PROGRESSIVE_JPEG],
] as const;
/** A second picture behind the end of the first, that says where it was. */
const BEHIND = [..."a picture with GPS"].map((letter) => letter.charCodeAt(0));
const says = (jpeg: Uint8Array, word: string): boolean => String.fromCharCode(...jpeg).includes(word);

test.each(BOTH)("%s: nothing is left but the picture, wherever it was said where it was taken", (_, jpeg) => {
  let told = jpeg;
  for (const [marker, text] of [
    [0xe1, "Exif GPS 51.5N"],
    [0xe0, "JFIF with a small GPS picture"],
    [0xed, "GPS and who took it"],
    [0xfe, "comment: GPS"],
  ] as const)
    told = withSegment(told, marker, text);
  told = Uint8Array.from([...told, ...BEHIND]);
  expect(says(told, "GPS")).toBe(true);
  expect(plainJpeg(told)).toEqual(jpeg);
  expect(plainJpeg(jpeg)).toEqual(jpeg);
});

test.each(BOTH)("%s: cut off anywhere, it is no photo", (_, jpeg) => {
  for (let end = 0; end < jpeg.length; end += 1) expect(plainJpeg(jpeg.slice(0, end))).toBeNull();
});

test("whatever the bytes are, the answer is a picture that is plain, or none", () => {
  const roll = dice(61);
  let taken = 0;
  for (let n = 0; n < 600; n += 1) {
    const bytes = n % 2 === 0 ? JPEG.slice() : PROGRESSIVE_JPEG.slice();
    for (let change = 0; change <= roll(3); change += 1) bytes[roll(bytes.length)] = roll(256);
    const plain = plainJpeg(bytes);
    if (plain === null) continue;
    taken += 1;
    expect(plainJpeg(plain)).toEqual(plain);
  }
  expect(taken).toBeGreaterThan(60);
});

test("a picture of few bytes that is huge once it is opened is none, nor one with two frames", () => {
  const frame = JPEG.findIndex((byte, place) => byte === 0xff && JPEG[place + 1] === 0xc0);
  const wide = JPEG.slice();
  wide.set([Math.floor(MOST_PHOTO_SIDE / 256), MOST_PHOTO_SIDE % 256], frame + 7);
  expect(plainJpeg(wide)).toEqual(wide);
  wide.set([255, 255], frame + 7);
  expect(plainJpeg(wide)).toBeNull();
  const size = (JPEG[frame + 2] ?? 0) * 256 + (JPEG[frame + 3] ?? 0) + 2;
  const again = JPEG.slice(frame, frame + size);
  expect(plainJpeg(Uint8Array.from([...JPEG.slice(0, frame), ...again, ...JPEG.slice(frame)]))).toBeNull();
});

const tick = aTick({ photos: [id(1), id(2)] });
const NAMED: Recorded[] = [{ by: "Ruth", entry: tick }];

test("photos go into a plan file and come back from it, without where they were taken", () => {
  const photos: Photo[] = [
    { id: id(1), jpeg: JPEG },
    { id: id(2), jpeg: withSegment(PROGRESSIVE_JPEG, 0xe1, "GPS") },
  ];
  const file: unknown = JSON.parse(JSON.stringify({ photos: photosToFile(photos) }));
  expect(photosOfFile(file, NAMED)).toEqual({
    ok: true,
    value: [photos[0], { id: id(2), jpeg: PROGRESSIVE_JPEG }],
  });
  expect(photosOfFile({}, [])).toEqual({ ok: true, value: [] });
});

const sentence = (photos: unknown): string => {
  const read = photosOfFile({ photos }, NAMED);
  return read.ok ? "" : must(read.error[0], "a fault").sentence;
};
const kept = { id: id(1), jpeg: z.encode(photoBytes, JPEG) };

test.each([
  ["no list", {}, "photos: A list belongs here."],
  ["no base64", [{ ...kept, jpeg: "a picture" }], /^photos\[0\]\.jpeg: A photo travels in base64/],
  ["no picture", [{ ...kept, jpeg: "aGVsbG8=" }], /^photos\[0\]\.jpeg: A photo is a whole JPEG/],
  ["too large", [{ ...kept, jpeg: "A".repeat(2 * MOST_PHOTO_BYTES) }], /A photo has at most 200 kB/],
  ["the same twice", [kept, kept], /^photos\[1\]: It is there twice/],
  [
    "one that no step names",
    [{ ...kept, id: id(9) }],
    /^photos\[0\]: No step or reading of the records names it/,
  ],
  ["a field too many", [{ ...kept, by: "Ruth" }], /^photos\[0\]/],
  ["too many", Array.from({ length: MOST_PHOTOS + 1 }, () => kept), /at most 150 photos/],
])("%s is refused in a sentence", (_, photos, wanted) => {
  expect(sentence(photos)).toMatch(wanted);
});

test("a record names the photos of its ticks, without those that were taken out", () => {
  const record: Recorded[] = [
    { by: "Ruth", entry: tick },
    { by: "Marek", entry: { id: id(4), at, do: "takeOut", photo: id(1) } },
    { by: "Marek", entry: { ...tick, id: id(5), photos: [id(2), id(6)] } },
  ];
  expect(photosNamed(record)).toEqual([id(2), id(6)]);
});

test("photos of a step that was taken back are told, as long as they are there", () => {
  const back: Recorded = { by: "Ruth", entry: { id: id(7), at, do: "takeBack", tick: tick.id } };
  const out = (photo: string, n: number): Recorded => ({
    by: "Ruth",
    entry: { id: id(n), at, do: "takeOut", photo },
  });
  expect(photosLeftBehind(NAMED)).toEqual([]);
  expect(photosLeftBehind([...NAMED, back])).toEqual([{ title: "Save", photos: [id(1), id(2)] }]);
  expect(photosLeftBehind([...NAMED, back, out(id(1), 8)])).toEqual([{ title: "Save", photos: [id(2)] }]);
  expect(photosLeftBehind([...NAMED, back, out(id(1), 8), out(id(2), 9)])).toEqual([]);
});
