export { CaptureFile } from "./capture-file";
export type { CapturedFrame } from "./frame";
