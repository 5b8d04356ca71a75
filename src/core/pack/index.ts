export { packFor, partsFor } from "./pack";
export { reportFor } from "./report";
export {
  READER_WORDS,
  READERS,
  type Block,
  type Cell,
  type DrawnCabinet,
  type Pack,
  type PackStudy,
  type Part,
  type Reader,
  type TitleBlock,
} from "./model";
export { sheetBefore } from "./before";
export { packStudy, type PackOf } from "./study";
