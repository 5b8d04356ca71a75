"use client";

import { useEffect } from "react";
import { useStore } from "zustand";
import type { Recorded } from "@/core/records";
import type { Role } from "@/http/contracts/answers";
import { liveStore, useLiveState } from "../live/live-store";
import { call } from "../plan-store/api";
import { usePlan } from "../plan-store/use-plan";
import { fetchPhotos, type PhotosHad } from "./fetch-photos";
import { makeOutbox } from "./outbox";
import { createRecordStore, type RecordState, type RecordStoreApi } from "./store";

/** Without the stream two people on one visit see one another's ticks within that time; with it at once. */
const NEWS_EVERY_MS = 5_000;

const STORES = new Map<string, RecordStoreApi>();

function storeFor(site: string, person: string, role: Role): RecordStoreApi {
  const key = `${site} ${person} ${role}`;
  const store =
    STORES.get(key) ?? createRecordStore({ site, person, role, call, outbox: makeOutbox(site, person) });
  STORES.set(key, store);
  return store;
}

function useRecordStore(): RecordStoreApi {
  const site = usePlan((state) => state.site);
  const person = usePlan((state) => state.person);
  return storeFor(
    site,
    person,
    usePlan((state) => state.role),
  );
}

/** Sends and asks for the record as long as a view is looked at; once in a view. */
export function useRecordNews(): void {
  const store = useRecordStore();
  useEffect(() => {
    const ask = () => {
      if (document.visibilityState === "visible") void store.sync();
    };
    const warn = (event: BeforeUnloadEvent) => {
      const { waiting, photos, isKept } = store.getState();
      if (waiting.length + photos.length > 0 && !isKept) event.preventDefault();
    };
    ask();
    const timer = setInterval(() => {
      if (!liveStore.getState().isOpen) ask();
    }, NEWS_EVERY_MS);
    document.addEventListener("visibilitychange", ask);
    window.addEventListener("online", ask);
    window.addEventListener("beforeunload", warn);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", ask);
      window.removeEventListener("online", ask);
      window.removeEventListener("beforeunload", warn);
    };
  }, [store]);
  const told = useLiveState(({ record }) => record);
  useEffect(() => {
    if (told > 0) void store.sync();
  }, [store, told]);
}

/** A record with its photos, as far as they can be had. */
export interface WholeRecord extends PhotosHad {
  readonly record: readonly Recorded[];
}

/** Asks for all that the server has of it first, as far as it can be asked, and answers the record then. */
export function useWholeRecord(): () => Promise<WholeRecord> {
  const site = usePlan((state) => state.site);
  const store = useRecordStore();
  return async () => {
    await store.sync();
    const { record, photos } = store.getState();
    return { record, ...(await fetchPhotos(site, record, photos)) };
  };
}

/** The record of the site on the screen. */
export function useRecord(): RecordState & Pick<RecordStoreApi, "add" | "drop" | "sync"> {
  const store = useRecordStore();
  const { add, drop, sync } = store;
  return { ...useStore(store), add, drop, sync };
}
