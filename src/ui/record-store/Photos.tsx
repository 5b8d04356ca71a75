"use client";

import { useMemo, useState } from "react";
import { v7 } from "uuid";
import { z } from "zod";
import { photoBytes, photosFor, photosTakenOut, type Photo } from "@/core/records";
import { Modal } from "../kit/Modal";
import { usePlan } from "../plan-store/use-plan";
import { useRecord } from "./use-record";

/** A picture that lies in this page, as an address for its place in it. */
export const usePictureUrl = (jpeg: Photo["jpeg"] | undefined): string | null =>
  useMemo(() => (jpeg === undefined ? null : `data:image/jpeg;base64,${z.encode(photoBytes, jpeg)}`), [jpeg]);

interface Props {
  readonly ids: readonly string[];
  /** What they show: the title of the step. */
  readonly of: string;
  /** Null where nothing is changed. */
  readonly onTakeOut: ((photo: string) => void) | null;
  /** The step or reading that they were taken of; null where whose they are is said elsewhere. */
  readonly entry: string | null;
}

/** Photos of a step, small; each opens large, and can be taken out there. */
export function Photos({ ids, of, onTakeOut, entry }: Props) {
  const { record } = useRecord();
  const out = useMemo(() => photosTakenOut(record), [record]);
  if (ids.length === 0) return null;
  const left = ids.filter((id) => !out.has(id));
  const gone = ids.length - left.length;
  return (
    <span className="flex flex-wrap items-center gap-2 py-1">
      {left.map((id) => (
        <Thumbnail
          key={id}
          id={id}
          name={`Photo ${ids.indexOf(id) + 1} of “${of}”`}
          onTakeOut={onTakeOut === null ? null : () => onTakeOut(id)}
        />
      ))}
      {gone === 0 ? null : (
        <span className="text-12 text-ink2">
          {gone === 1 ? "A photo was" : `${gone} photos were`} taken out.
        </span>
      )}
      {entry === null || left.length === 0 ? null : <Whose entry={entry} of={of} />}
    </span>
  );
}

/** Whether photos of a step or a reading leave the office: only what is the customer's stands in the papers. */
function Whose({ entry, of }: { entry: string; of: string }) {
  const { record, add } = useRecord();
  const isCustomers = useMemo(() => photosFor(record).get(entry) === "customer", [record, entry]);
  return (
    <label className="flex min-h-6 items-center gap-1 text-12">
      <input
        type="checkbox"
        checked={isCustomers}
        aria-label={`The customer's, in the papers: photos of “${of}”`}
        onChange={({ target }) =>
          add(
            {
              ...{ id: v7(), at: new Date().toISOString(), do: "photosFor", entry },
              for: target.checked ? "customer" : "us",
            },
            [],
          )
        }
      />
      the customer’s, in the papers
    </label>
  );
}

function Thumbnail({ id, name, onTakeOut }: { id: string; name: string; onTakeOut: (() => void) | null }) {
  const site = usePlan((state) => state.site);
  const { photos } = useRecord();
  const [isOpen, setOpen] = useState(false);
  const [tried, setTried] = useState({ times: 0, isMissing: false });
  const own = usePictureUrl(photos.find((photo) => photo.id === id)?.jpeg);
  const url = own ?? `/api/sites/${site}/photos/${id}${tried.times === 0 ? "" : `#${tried.times}`}`;
  if (tried.isMissing && own === null)
    return (
      <button
        type="button"
        className="button"
        title="It is still on the phone that took it, or there is no connection."
        aria-label={`${name} is not here yet: try again`}
        onClick={() => setTried(({ times }) => ({ times: times + 1, isMissing: false }))}
      >
        Photo not here yet
      </button>
    );
  const picture = (className: string, alt: string) => (
    // eslint-disable-next-line @next/next/no-img-element -- it asks for a session: nothing to shrink ahead
    <img
      src={url}
      alt={alt}
      className={className}
      loading="lazy"
      onError={() => setTried(({ times }) => ({ times, isMissing: true }))}
    />
  );
  return (
    <>
      <button type="button" aria-label={`Open: ${name}`} onClick={() => setOpen(true)}>
        {picture("h-12 w-12 border border-hair object-cover", "")}
      </button>
      <Modal open={isOpen} onOpenChange={setOpen} title={name} wide>
        {picture("mx-auto max-h-[55vh] max-w-full", name)}
        {onTakeOut === null ? null : (
          <p className="mt-3 flex flex-wrap items-center gap-3 text-13">
            <button
              type="button"
              className="button danger tall"
              onClick={() => {
                setOpen(false);
                onTakeOut();
              }}
            >
              Take the photo out
            </button>
            <span className="text-ink2">It is forgotten for everybody, for good.</span>
          </p>
        )}
      </Modal>
    </>
  );
}
