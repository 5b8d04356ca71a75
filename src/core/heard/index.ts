export { Listener, type HeardFacts, type HeardFile } from "./listener";
