import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { Modal } from "./Modal";

/** `leadsOn`: what was asked leads to a field that takes the focus. */
function Scene({ leadsOn = false }: { leadsOn?: boolean }) {
  const [open, setOpen] = useState(false);
  const [isDone, setDone] = useState(false);
  const close = () => {
    setOpen(false);
    setDone(true);
  };
  return (
    <>
      <button type="button" onClick={() => setOpen(true)}>
        Open it
      </button>
      {leadsOn && isDone ? <input aria-label="Elsewhere" autoFocus /> : null}
      {open ? (
        <Modal open onOpenChange={close} title="A question">
          <input aria-label="Answer" />
        </Modal>
      ) : null}
    </>
  );
}
const opener = () => screen.getByRole("button", { name: "Open it" });

test("whoever closes a dialog by keyboard is where they were before it opened", async () => {
  render(<Scene />);
  await userEvent.tab();
  await userEvent.keyboard("{Enter}");
  await screen.findByRole("dialog");
  expect(document.activeElement).toBe(screen.getByRole("button", { name: "Close" }));
  await userEvent.keyboard("{Escape}");
  expect(screen.queryByRole("dialog")).toBeNull();
  await waitFor(() => expect(document.activeElement).toBe(opener()));
});

test("where closing it leads somewhere else, that is where one stays", async () => {
  render(<Scene leadsOn />);
  await userEvent.tab();
  await userEvent.keyboard("{Enter}");
  await screen.findByRole("dialog");
  await userEvent.keyboard("{Escape}");
  await new Promise((done) => setTimeout(done, 50));
  expect(document.activeElement).toBe(screen.getByLabelText("Elsewhere"));
});
