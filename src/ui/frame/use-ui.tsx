"use client";

import { createContext, useContext, useState, type ReactNode } from "react";
import { useStore } from "zustand";
import { must } from "@/core/kernel";
import { createUiStore, type UiState, type UiStoreApi } from "./ui-state";

const Context = createContext<UiStoreApi | null>(null);

export function UiProvider({ children }: { children: ReactNode }) {
  const [store] = useState(createUiStore);
  return <Context value={store}>{children}</Context>;
}

export const useUiStore = (): UiStoreApi => must(useContext(Context), "a view stands inside a UiProvider");
export const useUi = <T,>(select: (state: UiState) => T): T => useStore(useUiStore(), select);
