import { MOST_PHOTO_BYTES, plainJpeg } from "@/core/records";

/** Longest side in pixels and quality, until the picture is small enough: the last fits whatever it shows. */
const TRIES = [
  [1600, 0.8],
  [1600, 0.6],
  [1280, 0.5],
  [960, 0.5],
  [640, 0.4],
  [320, 0.4],
] as const;

/** The bytes of a photo, or why there are none. */
export type PhotoRead = { readonly jpeg: Uint8Array<ArrayBuffer> } | { readonly refusal: string };

function drawn(picture: ImageBitmap, side: number, quality: number): Promise<Blob | null> {
  const scale = Math.min(1, side / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  const pen = canvas.getContext("2d");
  if (pen === null) return Promise.resolve(null);
  // What is transparent in a drawing is white on paper.
  pen.fillStyle = "#fff";
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((done) => canvas.toBlob(done, "image/jpeg", quality));
}

/** A picture drawn anew, upright and small, without where and with what it was taken. */
export async function photoOf(file: File): Promise<PhotoRead> {
  const refusal = `${file.name} is no picture that this browser can open. Take it as JPEG or PNG.`;
  const picture = await createImageBitmap(file).catch(() => null);
  if (picture === null) return { refusal };
  try {
    for (const [side, quality] of TRIES) {
      const blob = await drawn(picture, side, quality);
      const jpeg = blob === null ? null : plainJpeg(new Uint8Array(await blob.arrayBuffer()));
      if (jpeg !== null && jpeg.length <= MOST_PHOTO_BYTES) return { jpeg };
    }
    return { refusal };
  } finally {
    picture.close();
  }
}
