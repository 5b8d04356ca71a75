export { type CableLoad, kbpsOf, LOADS } from "./load";
export {
  CABLE_SHORT,
  CABLE_WORDS,
  cablesFor,
  fibreOf,
  isCopperCable,
  linkSpeed,
  MEDIUM_WORDS,
  misfit,
  opticsFor,
  portSpeed,
  reachOf,
} from "./media";
