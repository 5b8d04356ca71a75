import { z } from "zod";
import { MOST_PHOTOS, type FileFault } from "../formats";
import { err, ok, type Result } from "../kernel";
import { idField, issueSentence, valueAt } from "../plan";
import { photosOf, type Recorded, type RecordEntry } from "./entry";
import { MOST_PHOTO_SIDE, plainJpeg } from "./jpeg";
import type { RemarkFor } from "./remark";
import { takenBack } from "./visit";

// Photos lie beside the record: a tick names them, and they are sent, kept and taken out by themselves. They
// are JPEG (ITU-T T.81) with nothing in them but the picture: neither where nor with what it was taken.

/** As large is a photo at most, in bytes. */
export const MOST_PHOTO_BYTES = 200_000;
/** A photo: the tick that names it says who took it, when and of what. */
export interface Photo {
  readonly id: string;
  readonly jpeg: Uint8Array<ArrayBuffer>;
}

/** Bytes as they travel in JSON, bounded before they are decoded. */
export const photoBytes = z.codec(
  z.base64("A photo travels in base64").max(Math.ceil(MOST_PHOTO_BYTES / 3) * 4, {
    error: `A photo has at most ${MOST_PHOTO_BYTES / 1000} kB`,
  }),
  z.instanceof(Uint8Array<ArrayBuffer>),
  {
    decode: (text) => Uint8Array.from(z.util.base64ToUint8Array(text)),
    encode: (bytes) => z.util.uint8ArrayToBase64(bytes),
  },
);

/** Why bytes are not taken as a photo. */
export const NO_PHOTO = `A photo is a whole JPEG of at most ${MOST_PHOTO_SIDE} pixels a side.`;

const fileSchema = z.strictObject({ id: idField, jpeg: photoBytes });

/** Photos as a plan file has them. */
export const photosToFile = (photos: readonly Photo[]): unknown[] =>
  photos.map((photo) => z.encode(fileSchema, photo));

/** The photos in a plan file that is already parsed; the first that is none, or no step's, is named. */
export function photosOfFile(
  file: unknown,
  record: readonly Recorded[],
): Result<readonly Photo[], readonly FileFault[]> {
  const named = new Set(photosNamed(record));
  const list = typeof file === "object" && file !== null && "photos" in file ? file.photos : [];
  const fault = (place: string, sentence: string) => err([{ place, sentence: `${place}: ${sentence}` }]);
  if (!Array.isArray(list)) return fault("photos", "A list belongs here.");
  if (list.length > MOST_PHOTOS) return fault("photos", `A site has at most ${MOST_PHOTOS} photos.`);
  const photos = new Map<string, Photo>();
  for (const [at, value] of list.entries()) {
    const read = readOne(value, at);
    if (!read.ok) return err([read.error]);
    const { id } = read.value;
    if (!named.has(id)) return fault(`photos[${at}]`, "No step or reading of the records names it.");
    if (photos.has(id)) return fault(`photos[${at}]`, "It is there twice; every photo stands once.");
    photos.set(id, read.value);
  }
  return ok([...photos.values()]);
}

function readOne(value: unknown, at: number): Result<Photo, FileFault> {
  const fault = (place: string, sentence: string) => err({ place, sentence: `${place}: ${sentence}` });
  const read = fileSchema.safeParse(value);
  if (!read.success) {
    const [issue] = read.error.issues;
    const path = [`photos[${at}]`, ...(issue?.path ?? [])].map(String).join(".");
    return fault(path, issue === undefined ? NO_PHOTO : issueSentence(issue, valueAt(value, issue.path)));
  }
  const jpeg = plainJpeg(read.data.jpeg);
  return jpeg === null ? fault(`photos[${at}].jpeg`, NO_PHOTO) : ok({ id: read.data.id, jpeg });
}

/** Whose the photos of steps and readings are, by the id of that entry; ours where it has none. */
export const photosFor = (record: readonly Recorded[]): ReadonlyMap<string, RemarkFor> =>
  new Map(record.flatMap(({ entry }) => (entry.do === "photosFor" ? [[entry.entry, entry.for]] : [])));

/** The photos of a record that were taken out again. */
export const photosTakenOut = (record: readonly Recorded[]): ReadonlySet<string> =>
  new Set(record.flatMap(({ entry }) => (entry.do === "takeOut" ? [entry.photo] : [])));

/** The photos that a record's ticks name and that were not taken out, each once, in their order. */
export function photosNamed(record: readonly Recorded[]): string[] {
  const out = photosTakenOut(record);
  const named = record.flatMap(({ entry }) => photosOf(entry));
  return [...new Set(named)].filter((id) => !out.has(id));
}

const titleOf = (entry: RecordEntry): string => {
  if (entry.do === "tick") return entry.step.title;
  if (entry.do === "remark") return entry.text;
  return entry.do === "test" ? entry.test.at : "";
};

/** Steps and readings that were taken back and left photos, the last first: they stand nowhere else. */
export function photosLeftBehind(
  record: readonly Recorded[],
): { readonly title: string; readonly photos: readonly string[] }[] {
  const back = takenBack(record.map(({ entry }) => entry));
  const left = new Set(photosNamed(record));
  return record
    .flatMap(({ entry }) => {
      if (!back.has(entry.id)) return [];
      const photos = photosOf(entry).filter((id) => left.has(id));
      return photos.length === 0 ? [] : [{ title: titleOf(entry), photos }];
    })
    .reverse();
}
