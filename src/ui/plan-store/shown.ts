"use client";

import { createContext } from "react";
import type { Shown } from "../kit/trailing";
import type { PlanState } from "./plan-state";

/** The plan as it is drawn where something stays a frame behind the table; null where nothing does. */
export const ShownPlan = createContext<Shown<PlanState> | null>(null);
/** To be called before a table writes: what stands beside it is drawn after it. */
export const HoldContext = createContext<() => void>(() => undefined);
