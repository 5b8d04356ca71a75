import { expose } from "comlink";
import { fillTemplate } from "./template-engine";

const api = { fillTemplate };
export type TemplateWorker = typeof api;

expose(api);
