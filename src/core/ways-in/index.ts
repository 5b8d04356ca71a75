export { isDelicate } from "./delicate";
export { callsOn, type LineFails, whenLineFails } from "./second-line";
export { asItIs, type Tried } from "./try-way";
export { WAY_HEADS, type WayIn, wayRepair, WAYS, waysIn } from "./ways";
