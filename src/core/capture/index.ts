export { listenAt } from "./listen";
export { pcapng } from "./pcapng";
