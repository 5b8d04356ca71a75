/** One thing to do on the device: what is entered, in the columns of the page it is entered on. */
export interface SheetStep {
  readonly title: string;
  readonly note: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly caution: string;
}

export const NONE: Omit<SheetStep, "title"> = { note: "", heads: [], rows: [], caution: "" };

export const vidsText = (vids: readonly number[]): string => vids.join(", ") || "none";
