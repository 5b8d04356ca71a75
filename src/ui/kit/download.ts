export { CSV_TYPE } from "@/core/formats";
export { csv } from "@/http/contracts/csv-text";

/** "text/csv;charset=utf-8": no text of a file is one, so that the two are not taken for each other. */
export type MediaType = `${string}/${string}`;

/** Hands the browser a file to keep. */
export const download = (name: string, type: MediaType, text: string): void =>
  downloadBlob(name, new Blob([text], { type }));

/** Told of each file that is handed to the browser: its name. */
export const SAVED = "dianome-saved";

export function downloadBlob(name: string, blob: Blob): void {
  window.dispatchEvent(new CustomEvent<string>(SAVED, { detail: name }));
  handOver(name, blob);
}

/** The same for what the server made: it has written that down itself. */
export function handOver(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob);
  const anchor = document.createElement("a");
  anchor.href = address;
  anchor.download = name;
  anchor.click();
  URL.revokeObjectURL(address);
}

const MOST_PX = 8000;

/** An SVG picture as a PNG, twice as fine where that is not too large; null when the browser can't draw it. */
export async function pngOf(svg: string, width: number, height: number): Promise<Blob | null> {
  const scale = Math.min(2, MOST_PX / Math.max(width, height));
  const image = new Image();
  const address = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    image.src = address;
    await image.decode();
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [Math.round(width * scale), Math.round(height * scale)];
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/png"));
  } finally {
    URL.revokeObjectURL(address);
  }
}

export const fileName = (site: string, what: string): string =>
  `${site
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")}-${what}`;
