export { listenAt, type SeenFrame } from "./listen";
export { pcapng } from "./pcapng";
