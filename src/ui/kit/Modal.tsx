"use client";

import { clsx } from "clsx";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useRef, type ReactNode } from "react";

/** Gives the focus back to what had it before a dialog, unless closing it led somewhere else. */
function useFocusBack() {
  const before = useRef<Element | null>(null);
  return {
    onOpenAutoFocus: () => {
      before.current = document.activeElement;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      const isNowhere = document.activeElement === null || document.activeElement === document.body;
      if (isNowhere && before.current instanceof HTMLElement) before.current.focus();
    },
  };
}

/** A dialog: only for what can't be undone, for help, and for the command field. */
export function Modal({
  open,
  onOpenChange,
  title,
  description,
  children,
  wide = false,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  description?: string;
  children: ReactNode;
  wide?: boolean;
}) {
  const focusBack = useFocusBack();
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#10171c]/50" />
        <Dialog.Content
          {...focusBack}
          {...(description === undefined ? { "aria-describedby": undefined } : {})}
          className={clsx(
            "fixed top-24 left-1/2 z-50 max-h-[75vh] w-[calc(100vw-32px)] -translate-x-1/2",
            "overflow-auto rounded border border-ink bg-panel p-5",
            wide ? "max-w-[760px]" : "max-w-[480px]",
          )}
        >
          <div className="mb-3 flex items-start gap-4">
            <Dialog.Title className="text-18">{title}</Dialog.Title>
            <Dialog.Close className="button square ml-auto" aria-label="Close">
              <X size={15} />
            </Dialog.Close>
          </div>
          {description === undefined ? null : (
            <Dialog.Description className="mb-3 text-15">{description}</Dialog.Description>
          )}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
