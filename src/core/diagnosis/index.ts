export { askKey, askOfKey, type Ask, type Asked, askedOf, type Look } from "./asks";
export { SUSPECT_KINDS, type SuspectKind, TRADE_QUESTIONS, type TradeQuestion } from "./kinds";
export { nextReadings, type NextReading, inTheRunning, toBeSure } from "./next";
export { diagnosePairs } from "./pairs";
export { type Reading, type Seen, onPlan, differsText } from "./predict";
export { FOUR, whyFails, type FourQuestion, type Why } from "./why";
export { Study, type Candidate, type Diagnosed } from "./study";
