"use client";

import { createContext, useContext, useState, type ReactNode } from "react";
import { useStore } from "zustand";
import { must } from "@/core/kernel";
import type { Shown } from "../kit/trailing";
import { createUiStore, type UiState, type UiStoreApi } from "./ui-state";

const Context = createContext<UiStoreApi | null>(null);

export function UiProvider({ children }: { children: ReactNode }) {
  const [store] = useState(createUiStore);
  return <Context value={store}>{children}</Context>;
}

/** What is looked at as it is drawn where something stays a frame behind; null where nothing does. */
export const ShownUi = createContext<Shown<UiState> | null>(null);

export const useUiStore = (): UiStoreApi => must(useContext(Context), "a view stands inside a UiProvider");
export const useUi = <T,>(select: (state: UiState) => T): T => {
  const store = useUiStore();
  return useStore(useContext(ShownUi) ?? store, select);
};
