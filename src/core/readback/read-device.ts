import type { Result } from "../kernel";
import type { Device, PlanIndex } from "../plan";
import { readDeviceTable } from "./read-table";
import { readYang } from "./read-yang";
import type { Reading } from "./reading";

/** Reads what a device shows, as YANG data in JSON or as a table; an error is a sentence why not. */
export const readDevice = (index: PlanIndex, device: Device, text: string): Result<Reading, string> =>
  text.trimStart().startsWith("{") ? readYang(index, device, text) : readDeviceTable(index, device, text);
