/** The kinds of end device a host can be. */
export const HOST_KINDS = [
  "pc", "laptop", "phone", "printer", "camera", "recorder", "cardTerminal", "doorController", "sensor", "television", "console",
  "controller", "operatorPanel", "drive", "ioIsland", "scanner", "server", "storage", "mobile", "imaging", "other",
] as const;
