export {
  asPrinted,
  LABEL_KINDS,
  labelAddress,
  labelsOf,
  lastPrint,
  namedByLabel,
  newLabels,
  type Label,
  type LabelKind,
} from "./labels";
