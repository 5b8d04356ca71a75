"use client";

import { wrap } from "comlink";
import { useEffect, useState } from "react";
import type { DeviceData } from "@/core/device-sheet";
import type { Filled } from "@/workers/template-engine";
import type { TemplateWorker } from "@/workers/template.worker";

const MOST_MS = 3000;
const REST_MS = 250;

/**
 * Fills a template in a worker of its own, which is stopped when it takes too long; null while it is at work.
 */
export function useTemplate(template: string | null, data: DeviceData): Filled | null {
  const [made, setMade] = useState<{ readonly of: string; readonly filled: Filled } | null>(null);
  const text = JSON.stringify(data);
  const key = `${template ?? ""} ${text}`;
  useEffect(() => {
    const setFilled = (filled: Filled) => setMade({ of: key, filled });
    if (template === null) return undefined;
    let worker: Worker | null = null;
    let late: ReturnType<typeof setTimeout> | undefined;
    const begin = setTimeout(() => {
      worker = new Worker(new URL("../../../workers/template.worker.ts", import.meta.url), {
        type: "module",
      });
      late = setTimeout(() => {
        worker?.terminate();
        setFilled({
          text: null,
          fault: `The template took longer than ${MOST_MS / 1000} s and was stopped; give it less to do.`,
        });
      }, MOST_MS);
      void wrap<TemplateWorker>(worker)
        .fillTemplate(template, JSON.parse(text) as DeviceData)
        .then((done) => {
          clearTimeout(late);
          worker?.terminate();
          setFilled(done);
        });
    }, REST_MS);
    return () => {
      clearTimeout(begin);
      clearTimeout(late);
      worker?.terminate();
    };
  }, [template, text, key]);
  return made?.of === key ? made.filled : null;
}
