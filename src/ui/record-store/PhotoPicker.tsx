"use client";

import { Camera, X } from "lucide-react";
import { useState } from "react";
import { v7 } from "uuid";
import { MOST_PHOTOS_AT_STEP, type Photo } from "@/core/records";
import { photoOf } from "../kit/photo";
import { usePictureUrl } from "./Photos";

/** Photos of a step before it is ticked: taken with the camera, or chosen from what lies there. */
export function PhotoPicker({
  photos,
  onChange,
  isBusy,
  onBusy,
}: {
  photos: readonly Photo[];
  onChange: (photos: readonly Photo[]) => void;
  /** Whether one is being read: until then the step must not be ticked without it. */
  isBusy: boolean;
  onBusy: (isBusy: boolean) => void;
}) {
  const [refusal, setRefusal] = useState<string | null>(null);
  const take = async (files: readonly File[]) => {
    onBusy(true);
    setRefusal(null);
    let taken = photos;
    for (const file of files.slice(0, MOST_PHOTOS_AT_STEP - photos.length)) {
      const read = await photoOf(file);
      if ("jpeg" in read) taken = [...taken, { id: v7(), jpeg: read.jpeg }];
      else setRefusal(read.refusal);
    }
    if (files.length > MOST_PHOTOS_AT_STEP - photos.length)
      setRefusal(`At most ${MOST_PHOTOS_AT_STEP} photos go with a step.`);
    onChange(taken);
    onBusy(false);
  };
  return (
    <div className="px-4 pt-2 text-13">
      <div className="flex flex-wrap items-center gap-2">
        {photos.length >= MOST_PHOTOS_AT_STEP ? null : (
          <label className="button tall cursor-pointer">
            <Camera size={16} aria-hidden /> {isBusy ? "Reading the photo …" : "Add a photo"}
            <input
              type="file"
              accept="image/*"
              multiple
              className="sr-only"
              disabled={isBusy}
              onChange={(event) => {
                const files = [...(event.target.files ?? [])];
                event.target.value = "";
                void take(files);
              }}
            />
          </label>
        )}
        {photos.map((photo, at) => (
          <Chosen
            key={photo.id}
            photo={photo}
            name={`Photo ${at + 1}`}
            onRemove={() => onChange(photos.filter(({ id }) => id !== photo.id))}
          />
        ))}
      </div>
      <p role="status" className="text-12 text-ink2">
        {photos.length === 0 ? "" : "Never one that shows a password. Where it was taken is not kept."}
      </p>
      {refusal === null ? null : (
        <p role="alert" className="text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}

function Chosen({ photo, name, onRemove }: { photo: Photo; name: string; onRemove: () => void }) {
  const url = usePictureUrl(photo.jpeg);
  return (
    <span className="relative inline-block">
      {/* eslint-disable-next-line @next/next/no-img-element -- bytes of this page, not a file of the server */}
      <img src={url ?? ""} alt={name} className="h-16 w-16 border border-hair object-cover" />
      <button
        type="button"
        className="button square absolute -top-2 -right-2"
        aria-label={`Leave out: ${name}`}
        onClick={onRemove}
      >
        <X size={13} />
      </button>
    </span>
  );
}
