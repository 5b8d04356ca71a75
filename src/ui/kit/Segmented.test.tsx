import { act, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { Segmented } from "./Segmented";

test("an arrow chooses what it moves to, and choosing what is chosen asks for nothing", () => {
  const asked: string[] = [];
  function Choice() {
    const [value, setValue] = useState<"list" | "drawing">("list");
    return (
      <Segmented
        label="View"
        value={value}
        choices={[
          ["list", "List"],
          ["drawing", "Drawing"],
        ]}
        onChoose={(choice) => {
          asked.push(choice);
          setValue(choice);
        }}
      />
    );
  }
  render(<Choice />);
  const list = screen.getByRole("radio", { name: "List" });
  act(() => list.focus());
  fireEvent.keyDown(list, { key: "ArrowRight" });
  act(() => screen.getByRole("radio", { name: "Drawing" }).focus());
  expect(asked).toEqual(["drawing"]);
  fireEvent.click(screen.getByRole("radio", { name: "Drawing" }));
  expect([asked, screen.getByRole("radio", { name: "Drawing" }).getAttribute("aria-checked")]).toEqual([
    ["drawing"],
    "true",
  ]);
});
