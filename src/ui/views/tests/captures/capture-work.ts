import type { HeardFile } from "@/core/heard";
import type { Tap } from "@/core/listening";

/** A capture that is read, or was. */
export interface CaptureWork {
  readonly site: string;
  readonly name: string;
  /** Octets of the file, and how many of them are read. */
  readonly size: number;
  readonly done: number;
  readonly heard: HeardFile | null;
  readonly isWorking: boolean;
  readonly fault: string | null;
  /** The port where it was taken; null where nobody said. */
  readonly port: string | null;
  /** Where the tap sat, as somebody said; null for a guess. */
  readonly tap: Tap | null;
  /** Whether it was written down as it is laid out now. */
  readonly isTaken: boolean;
}

export const IDLE: CaptureWork = {
  site: "",
  name: "",
  size: 0,
  done: 0,
  heard: null,
  isWorking: false,
  fault: null,
  port: null,
  tap: null,
  isTaken: false,
};
