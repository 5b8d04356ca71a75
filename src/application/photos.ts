import { MOST_PHOTOS } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import { NO_PHOTO, plainJpeg } from "@/core/records";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { PhotoStore } from "./stores";

const PHOTOS_FULL: AppError = {
  code: "photos-full",
  sentence: `A site has at most ${MOST_PHOTOS} photos; take one out of the record first.`,
};

const UNNAMED: AppError = {
  code: "no-such-photo",
  sentence: "No step or reading of the record names this photo.",
};

/** Keeps a photo with nothing in it but the picture; sent twice, it counts once. */
export async function addPhoto(
  store: PhotoStore,
  site: string,
  { id, jpeg }: { readonly id: string; readonly jpeg: Uint8Array },
): Promise<Result<{ readonly id: string }, AppError>> {
  const plain = plainJpeg(jpeg);
  if (plain === null) return err({ code: "no-photo", sentence: NO_PHOTO });
  const added = await store.add(site, { id, jpeg: plain }, MOST_PHOTOS);
  if (added === null) return err(NO_SUCH_SITE);
  if (added === "unnamed") return err(UNNAMED);
  return added === "full" ? err(PHOTOS_FULL) : ok({ id });
}

/** A photo as it is kept. */
export async function readPhoto(
  store: PhotoStore,
  site: string,
  id: string,
): Promise<Result<Uint8Array<ArrayBuffer>, AppError>> {
  const jpeg = await store.read(site, id);
  return jpeg === null
    ? err({ code: "no-such-photo", sentence: "The photo is not here: it was taken out, or not sent yet." })
    : ok(jpeg);
}
