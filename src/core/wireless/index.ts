export { assignChannels } from "./assign";
export { channelBlock, channelsOverlap, channelsSummary } from "./channels";
export { HEARING } from "./hearing";
export { RADIO_SET_NAMES, RADIO_SETS } from "./radio-sets";
export { SECURITY_FACTS } from "./security";
