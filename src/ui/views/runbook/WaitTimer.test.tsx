import { act, fireEvent, render, screen } from "@testing-library/react";
import { WaitTimer } from "./WaitTimer";

test("a wait counts down by the clock, also where its ticks came late, and says when it is over", () => {
  jest.useFakeTimers({ now: 1_000_000 });
  render(<WaitTimer seconds={75} what="Office AP starting" />);
  expect(screen.getByRole("timer").textContent).toBe("1:15");
  fireEvent.click(screen.getByRole("button", { name: "Start the 75 s" }));
  act(() => jest.advanceTimersByTime(10_000));
  expect(screen.getByRole("timer").textContent).toBe("1:05");
  // The phone slept meanwhile.
  jest.setSystemTime(1_080_000);
  act(() => jest.advanceTimersByTime(500));
  expect(screen.getByRole("timer").textContent).toBe("0:00");
  expect(screen.getByRole("status").textContent).toBe(
    "✓ Office AP starting should be over: look whether it is.",
  );
  fireEvent.click(screen.getByRole("button", { name: "From the start again" }));
  expect(screen.getByRole("timer").textContent).toBe("1:15");
  jest.useRealTimers();
});
