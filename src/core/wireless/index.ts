export { assignChannels, type Assigned } from "./assign";
export { channelBlock, channelOptions, channelsOverlap, channelsSummary, type Option } from "./channels";
export { HEARING, type Hearing } from "./hearing";
export { RADIO_SET_NAMES, RADIO_SETS, type RadioSet } from "./radio-sets";
export { SECURITY_FACTS } from "./security";
