import { photosNamed, plainJpeg, type Photo, type Recorded } from "@/core/records";

/** Photos of a record, and how many can't be had now: not sent by whoever took them, or no connection. */
export interface PhotosHad {
  readonly photos: readonly Photo[];
  readonly missing: number;
}

async function fetchPhoto(site: string, id: string): Promise<Photo | null> {
  const answer = await fetch(`/api/sites/${site}/photos/${id}`).catch(() => null);
  const jpeg = answer?.ok === true ? plainJpeg(new Uint8Array(await answer.arrayBuffer())) : null;
  return jpeg === null ? null : { id, jpeg };
}

/** All photos that a record names, from this browser where they wait here, else from the server. */
export async function fetchPhotos(
  site: string,
  record: readonly Recorded[],
  waiting: readonly Photo[],
): Promise<PhotosHad> {
  const photos: Photo[] = [];
  const ids = photosNamed(record);
  for (const id of ids) {
    const photo = waiting.find((own) => own.id === id) ?? (await fetchPhoto(site, id));
    if (photo !== null) photos.push(photo);
  }
  return { photos, missing: ids.length - photos.length };
}
