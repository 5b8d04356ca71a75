"use client";

import { useState } from "react";
import { v7 } from "uuid";
import type { Photo, Remark, RemarkFor } from "@/core/records";
import { Modal } from "../../kit/Modal";
import { Radios } from "../../kit/Radios";
import { PhotoPicker } from "../../record-store/PhotoPicker";
import { useRecord } from "../../record-store/use-record";
import type { About } from "./remarked";

const MOST_TEXT = 2000;
const WHOSE: readonly (readonly [RemarkFor, string])[] = [
  ["us", "ours: it stays with us"],
  ["customer", "the customer’s: it goes into the papers"],
];

/** Writes something down about a thing or the site: whose it is, whether somebody has to see to it. */
export function RemarkForm({ about, onClose }: { about: About; onClose: () => void }) {
  const { add } = useRecord();
  const [text, setText] = useState("");
  const [whose, setWhose] = useState<RemarkFor>("us");
  const [isOpen, setOpen] = useState(false);
  const [due, setDue] = useState("");
  const [photos, setPhotos] = useState<readonly Photo[]>([]);
  const [isReading, setReading] = useState(false);
  const isEmpty = text.trim() === "" && photos.length === 0;
  const write = () => {
    const remark: Remark = {
      id: v7(),
      at: new Date().toISOString(),
      do: "remark",
      about,
      for: whose,
      text: text.trim(),
      isOpen,
      due: isOpen && due !== "" ? due : null,
      photos: photos.map(({ id }) => id),
    };
    add(remark, photos);
    onClose();
  };
  return (
    <Modal
      open
      onOpenChange={onClose}
      title={about === null ? "A remark on the site" : `A remark on ${about.name}`}
      description="It stands in the record with your name; the plan does not change. Never write a password."
    >
      <form
        className="flex flex-col gap-3 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          write();
        }}
      >
        <textarea
          aria-label="Remark"
          className="field w-full"
          rows={4}
          maxLength={MOST_TEXT}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <div className="-mx-4">
          <Radios label="Whose" value={whose} choices={WHOSE} onChoose={setWhose} />
        </div>
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" checked={isOpen} onChange={({ target }) => setOpen(target.checked)} />
          An open point: somebody has to see to it
        </label>
        {isOpen ? (
          <label className="flex items-center gap-2">
            Until
            <input
              type="date"
              className="field"
              value={due}
              min="1970-01-01"
              max="9999-12-31"
              onChange={(event) => setDue(event.target.value)}
            />
          </label>
        ) : null}
        <div className="-mx-4">
          <PhotoPicker photos={photos} onChange={setPhotos} isBusy={isReading} onBusy={setReading} />
        </div>
        <button type="submit" className="button go tall" disabled={isEmpty || isReading}>
          Write it down
        </button>
      </form>
    </Modal>
  );
}
