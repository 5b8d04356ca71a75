"use client";

import { useRef } from "react";
import { cancelCapture, startCapture, useCapture } from "./use-capture";

const ENDINGS = ".pcap,.pcapng,.cap";

/** Chooses a capture, or takes one that is dropped. */
export function CaptureFile({ site }: { site: string }) {
  const { isWorking, done, size, name, heard, fault } = useCapture(site);
  const input = useRef<HTMLInputElement>(null);
  const take = (file: File | undefined) => {
    if (file !== undefined) startCapture(site, file);
  };
  return (
    <section aria-label="Capture" className="border-b border-ink px-4 py-3">
      {heard === null && !isWorking && fault === null ? (
        <p className="max-w-[64ch] pb-2 text-15">
          A capture that was taken at a port shows which VLANs are there, who gives addresses, which root the
          tree has, who the neighbours are, and what goes round. Drop a pcap or pcapng file here, or choose
          one. It is read in this browser, and only what it shows is kept.
        </p>
      ) : null}
      <div className="flex flex-wrap items-center gap-3">
        <input
          ref={input}
          type="file"
          accept={ENDINGS}
          aria-label="Capture file"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        <button
          type="button"
          className={heard === null ? "button go" : "button"}
          onClick={() => input.current?.click()}
        >
          {heard === null ? "Choose a capture" : "Another capture"}
        </button>
        {isWorking ? (
          <p role="status" className="flex flex-wrap items-center gap-3 text-13">
            <progress aria-label="Reading the capture" value={done} max={size === 0 ? 1 : size} />
            Reading {name} …
            <button type="button" className="button" onClick={cancelCapture}>
              Stop
            </button>
          </p>
        ) : null}
      </div>
      {fault === null ? null : (
        <p role="alert" className="pt-2 text-stop">
          {fault}
        </p>
      )}
    </section>
  );
}
