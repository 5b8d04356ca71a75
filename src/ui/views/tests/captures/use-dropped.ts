"use client";

import { useState, type DragEvent } from "react";

/** A file that is dropped somewhere; while one is held above it, `isOver`. */
export function useDropped(onFile: (file: File) => void) {
  const [isOver, setOver] = useState(false);
  return {
    isOver,
    handlers: {
      onDragOver: (event: DragEvent) => {
        // What else is dragged, as text, is left to whoever takes it.
        if (!event.dataTransfer.types.includes("Files")) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file === undefined) return;
        event.preventDefault();
        onFile(file);
      },
    },
  };
}
