export { kbpsOf, LOADS } from "./load";
export {
  CABLE_SHORT,
  CABLE_WORDS,
  cablesFor,
  fibreOf,
  linkSpeed,
  MEDIUM_WORDS,
  misfit,
  opticsFor,
  portSpeed,
  reachOf,
  speedText,
} from "./media";
