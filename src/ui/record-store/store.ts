import { toast } from "sonner";
import { createStore, type StoreApi } from "zustand/vanilla";
import { z } from "zod";
import {
  decodeEntry,
  encodeEntry,
  photoBytes,
  photosOf,
  type Photo,
  type Recorded,
  type RecordEntry,
} from "@/core/records";
import { reaches, type RecordAnswer, type Role } from "@/http/contracts/answers";
import { fateOf, type Call } from "../plan-store/api";
import { mayNotDraw } from "../plan-store/may-not-draw";
import { sentenceWhileKept } from "../plan-store/sentence-while-kept";
import type { FromServer, Outbox } from "./outbox";

/** An entry that the server will never take, with its reason. */
interface Refused {
  readonly entry: RecordEntry;
  readonly sentence: string;
}

export interface RecordState {
  /** Whether it is known what this browser keeps. */
  readonly isReady: boolean;
  /** What the server has, then what it does not have yet. */
  readonly record: readonly Recorded[];
  /** Not sent yet. */
  readonly waiting: readonly RecordEntry[];
  readonly refused: readonly Refused[];
  /** Photos that the server does not have yet. */
  readonly photos: readonly Photo[];
  /** Why it is not sent; null where nothing is known to be in the way. */
  readonly trouble: string | null;
  /** Whether what waits is kept in this browser, so that closing the page loses nothing. */
  readonly isKept: boolean;
}

export interface RecordStoreApi extends StoreApi<RecordState> {
  /** Takes in what this browser keeps of the site; the first time only. */
  readonly open: () => Promise<void>;
  /** Writes an entry down, with the photos that it names: it stands at once, and is sent as soon as can be. */
  readonly add: (entry: RecordEntry, photos?: readonly Photo[]) => void;
  /** Sends what waits and asks for what others added. */
  readonly sync: () => Promise<void>;
  /** Forgets an entry that the server does not take. */
  readonly drop: (id: string) => void;
}

/** As many entries go in one request; one that begins a visit may be large and goes alone. */
const MOST_AT_ONCE = 50;

function nextToSend(waiting: readonly RecordEntry[]): readonly RecordEntry[] {
  const [first] = waiting;
  if (first?.do === "start") return [first];
  const start = waiting.findIndex((entry) => entry.do === "start");
  return waiting.slice(0, Math.min(MOST_AT_ONCE, start < 0 ? MOST_AT_ONCE : start));
}

const IDLE: RecordState = {
  isReady: false,
  record: [],
  waiting: [],
  refused: [],
  photos: [],
  trouble: null,
  isKept: true,
};

const NOT_SHOWN = "The server took an entry and does not show it; it is kept here and sent again.";
const UNREADABLE = "The record holds what a newer version has written; load the page again.";

/** Refusals of one photo that say nothing of the next. */
const OF_THE_PHOTO: ReadonlySet<string> = new Set(["bad-request", "no-photo", "no-such-photo", "too-large"]);

interface Tools {
  readonly site: string;
  readonly person: string;
  readonly role: Role;
  readonly call: Call;
  readonly outbox: Outbox;
}

/** The record of a site, as this browser has it. */
// eslint-disable-next-line max-lines-per-function -- one store with its actions in one closure
export function createRecordStore({ site, person, role, call, outbox }: Tools): RecordStoreApi {
  const store = createStore<RecordState>()(() => IDLE);
  const path = `/api/sites/${site}/record`;
  let stored: { readonly number: number; readonly recorded: Recorded }[] = [];
  let running: Promise<void> | null = null;
  let isAskedAgain = false;
  let opening: Promise<void> | null = null;

  let shown: typeof stored | null = null;

  /** The record stays the same value as long as nothing came to it: much is worked out from it. */
  const show = (part: Partial<RecordState> = {}): void => {
    const before = store.getState();
    const waiting = part.waiting ?? before.waiting;
    if (waiting === before.waiting && shown === stored) return store.setState(part);
    shown = stored;
    store.setState({
      ...part,
      waiting,
      record: [...stored.map(({ recorded }) => recorded), ...waiting.map((entry) => ({ by: person, entry }))],
    });
  };

  /** Takes in what the server has; false where something of it can't be read here. */
  const takeIn = (entries: readonly FromServer[]): boolean => {
    const last = stored.at(-1)?.number ?? 0;
    const read = entries.flatMap(({ number, by, entry: value }) => {
      const entry = number > last ? decodeEntry(value) : null;
      return entry === null ? [] : [{ number, recorded: { by, entry } }];
    });
    if (read.length === 0) return entries.every(({ number }) => number <= last);
    stored = [...stored, ...read];
    const here = new Set(read.map(({ recorded }) => recorded.entry.id));
    const seen = store.getState().waiting.filter(({ id }) => here.has(id));
    if (seen.length > 0) void outbox.remove(seen.map(({ id }) => id));
    show({ waiting: store.getState().waiting.filter(({ id }) => !here.has(id)) });
    return read.length === entries.filter(({ number }) => number > last).length;
  };

  const open = (): Promise<void> =>
    (opening ??= (async () => {
      const [known, waiting] = [await outbox.known(), await outbox.waiting()];
      const photos = await outbox.photos();
      const taken = store.getState().photos;
      store.setState({
        photos: [...photos.filter(({ id }) => !taken.some((photo) => photo.id === id)), ...taken],
      });
      const added = store.getState().waiting;
      const before = waiting.filter(({ id }) => !added.some((recordEntry) => recordEntry.id === id));
      show({ waiting: [...before, ...added] });
      takeIn(known);
      store.setState({ isReady: true });
    })());

  /** What becomes of an entry that was not taken; whether the next can be tried. */
  const refusedBy = (entries: readonly RecordEntry[], sentence: string): boolean => {
    const [only] = entries;
    if (only === undefined) return false;
    const { waiting, refused } = store.getState();
    // It stays in the browser until the person lets go of it.
    show({
      waiting: waiting.filter(({ id }) => id !== only.id),
      refused: [...refused, { entry: only, sentence }],
    });
    return true;
  };

  const sendOnce = async (entries: readonly RecordEntry[]): Promise<boolean> => {
    const answer = await call<{ last: number }>(path, "POST", { entries: entries.map(encodeEntry) });
    if (answer.ok) return true;
    const { status, refused } = answer;
    if (fateOf(status, refused.code) !== "drop") {
      show({ trouble: sentenceWhileKept(status, refused) });
      return false;
    }
    if (entries.length === 1) return refusedBy(entries, refused.sentence);
    // One of them is not taken: each is tried by itself, so that the others are.
    for (const entry of entries) if (!(await sendOnce([entry]))) return false;
    return true;
  };

  const fetchNews = async (): Promise<boolean> => {
    for (let isMore = true; isMore;) {
      const answer = await call<RecordAnswer>(`${path}?after=${stored.at(-1)?.number ?? 0}`);
      if (!answer.ok) {
        show({ trouble: sentenceWhileKept(answer.status, answer.refused) });
        return false;
      }
      if (answer.value.last < (stored.at(-1)?.number ?? 0)) {
        // The site was deleted and made anew: what was known is of another record.
        stored = [];
        await outbox.forget();
        show();
        continue;
      }
      // Kept as the server's before it is no longer kept as waiting: a reload in between finds it.
      await outbox.learn(answer.value.entries);
      const isRead = takeIn(answer.value.entries);
      if (!isRead) {
        show({ trouble: UNREADABLE });
        return false;
      }
      isMore = answer.value.isMore;
    }
    return true;
  };

  const forgetPhoto = (photo: string): void => {
    store.setState(({ photos }) => ({ photos: photos.filter(({ id }) => id !== photo) }));
    void outbox.removePhoto(photo);
  };

  /** Photos go last: what was ticked is worth more. What is in the way of one, or null. */
  const sendPhotos = async (): Promise<string | null> => {
    let trouble: string | null = null;
    for (const { id, jpeg } of store.getState().photos) {
      const body = { id, jpeg: z.encode(photoBytes, jpeg) };
      const answer = await call(`/api/sites/${site}/photos`, "POST", body);
      if (answer.ok) forgetPhoto(id);
      else trouble = sentenceWhileKept(answer.status, answer.refused);
      if (!answer.ok && !OF_THE_PHOTO.has(answer.refused.code)) break;
    }
    return trouble;
  };

  const syncOnce = async (): Promise<void> => {
    await open();
    for (;;) {
      const entries = nextToSend(store.getState().waiting);
      if (entries.length > 0 && !(await sendOnce(entries))) return;
      // What was sent has left the list only once the server has shown it.
      if (!(await fetchNews())) return;
      if (entries.length === 0) break;
      const left = new Set(store.getState().waiting);
      if (entries.some((entry) => left.has(entry))) return show({ trouble: NOT_SHOWN });
    }
    const trouble = await sendPhotos();
    if (store.getState().trouble !== trouble) show({ trouble });
  };

  const untilNobodyAsks = async (): Promise<void> => {
    try {
      while (isAskedAgain) {
        isAskedAgain = false;
        await syncOnce();
      }
    } finally {
      running = null;
    }
  };

  /** Who asks while an answer is on its way gets what is true after their own question: one more is asked. */
  const sync = (): Promise<void> => {
    isAskedAgain = true;
    return (running ??= untilNobodyAsks());
  };

  return Object.assign(store, {
    open,
    sync,
    add: (entry: RecordEntry, photos: readonly Photo[] = []) => {
      if (!reaches(role, "field")) return void toast.error(mayNotDraw(role));
      if (entry.do === "takeOut") forgetPhoto(entry.photo);
      show({
        waiting: [...store.getState().waiting, entry],
        photos: [...store.getState().photos, ...photos],
      });
      const keep = [outbox.put(entry), ...photos.map((photo) => outbox.putPhoto(photo))];
      void Promise.all(keep).then((kept) => {
        store.setState({ isKept: kept.every((isKept) => isKept) });
        void sync();
      });
    },
    drop: (id: string) => {
      void outbox.remove([id]);
      for (const { entry } of store.getState().refused)
        if (entry.id === id) photosOf(entry).forEach(forgetPhoto);
      show({ refused: store.getState().refused.filter(({ entry }) => entry.id !== id) });
    },
  });
}
