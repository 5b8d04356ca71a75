import { expose } from "comlink";
import { layout } from "./layout";

const api = { layout };
export type LayoutWorker = typeof api;

expose(api);
