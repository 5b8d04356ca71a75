import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { LEFT_IN, printerHeard } from "../../../../../demo/capture";
import { fennelStreet } from "../../../../../demo/fennel-street";
import { captures } from "../../../../../tests/support/capture";
import { scene } from "../../../../../tests/support/plan-scene";
import { PlanIndex } from "@/core/plan";
import { Captures } from "./Captures";

type Support = typeof import("../../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.recordModule,
);
const saved: { name: string; text: string }[] = [];
jest.mock("../../../kit/download", () => ({
  ...jest.requireActual<object>("../../../kit/download"),
  download: (name: string, _: string, text: string) => mockSaved(name, text),
}));
const mockSaved = (name: string, text: string) => saved.push({ name, text });
jest.mock(
  "./use-capture",
  () =>
    jest.requireActual<typeof import("../../../../../tests/support/capture")>(
      "../../../../../tests/support/capture",
    ).captureModule,
);

const plan = fennelStreet();
const index = PlanIndex.of(plan);
captures.set("wrong.pcapng", printerHeard(LEFT_IN));
captures.set("right.pcapng", printerHeard(20));
captures.set("letter.pcap", new TextEncoder().encode("Dear Ruth, this is no capture at all."));

const onWrong = jest.fn();
const taken = () =>
  scene.record.store.getState().record.flatMap(({ entry }) => (entry.do === "test" ? [entry] : []));

beforeEach(() => {
  onWrong.mockReset();
  scene.show(plan);
  saved.length = 0;
});

/** The tab with a capture chosen, and said where it was taken. */
async function opened(name: string) {
  const user = userEvent.setup();
  render(<Captures index={index} onWrong={onWrong} />);
  await user.upload(screen.getByLabelText("Capture file"), new File(["-"], name));
  return user;
}
async function takenAt(user: ReturnType<typeof userEvent.setup>, words: string) {
  await user.click(screen.getByRole("button", { name: /^Port:/ }));
  await user.type(screen.getByPlaceholderText("Type part of the name"), `${words}{Enter}`);
}

test("a capture is laid beside the plan: what differs first, each difference a reading", async () => {
  const user = await opened("wrong.pcapng");
  expect(screen.getByText(/Say at which port it was taken/)).not.toBeNull();
  await takenAt(user, "Upper switch 4");
  const heard = screen.getByRole("region", { name: "What was heard" });
  expect(within(heard).getAllByRole("listitem")[0]?.textContent).toContain("Given to Reception printer");
  expect(screen.getByText(/is an address of Phones; it has to be/)).not.toBeNull();
  await user.click(screen.getByRole("button", { name: "Write down as 2 readings" }));
  expect(taken().map(({ came, test: { at } }) => [came, at])).toEqual([
    ["otherwise", "Reception printer"],
    ["otherwise", "Upper switch port 4"],
  ]);
  await user.click(screen.getByRole("button", { name: "What is wrong?" }));
  expect(onWrong).toHaveBeenCalledTimes(1);
});

test("what is heard as planned is written down as one reading; the table can be saved", async () => {
  const user = await opened("right.pcapng");
  await takenAt(user, "Upper switch 4");
  expect(screen.getByText("✓ What was heard is as planned")).not.toBeNull();
  await user.click(screen.getByRole("button", { name: "Write down as 1 reading" }));
  expect(taken().map(({ came }) => came)).toEqual(["expected"]);
  expect(screen.queryByRole("button", { name: /^Write down/ })).toBeNull();
  const heard = screen.getByRole("region", { name: "What was heard" });
  await user.click(within(heard).getByRole("button", { name: "Save as CSV" }));
  expect(saved[0]?.text).toContain("About,Planned,Heard,Is,Means");
  // Another place is another meaning: it can be written down anew.
  await user.click(screen.getByRole("radio", { name: "In the cable" }));
  expect(screen.getByRole("button", { name: /^Write down/ })).not.toBeNull();
});

test("a file that is no capture is said to be none", async () => {
  await opened("letter.pcap");
  expect(screen.getByRole("alert").textContent).toBe(
    "letter.pcap: This is no capture: a file in the pcap or the pcapng format is needed.",
  );
  expect(screen.queryByRole("button", { name: /^Port:/ })).toBeNull();
});

test("the own laptop's address is asked for, and nonsense is refused with a sentence", async () => {
  const user = await opened("right.pcapng");
  await takenAt(user, "Upper switch 4");
  await user.click(screen.getByRole("radio", { name: "Own laptop" }));
  const field = screen.getByRole("textbox", { name: "Its MAC address" });
  await user.clear(field);
  await user.type(field, "printer{Enter}");
  expect(screen.getByRole("alert").textContent).toMatch(/^printer is no MAC address/);
});

test("a table of neighbours is pasted, and a cable in another port is a reading", async () => {
  const user = await opened("right.pcapng");
  await user.click(screen.getByRole("button", { name: /^Device:/ }));
  await user.type(screen.getByPlaceholderText("Type part of the name"), "Upper switch{Enter}");
  const box = screen.getByRole("textbox", { name: /shows of its neighbours/ });
  await user.click(box);
  await user.paste("hello");
  expect(screen.getByRole("alert").textContent).toMatch(/^No line names the columns/);
  await user.clear(box);
  await user.paste("Local port\tSystem name\tPort\n4\tLower switch\t1\n");
  const table = screen.getByRole("region", { name: "Table of neighbours" });
  await user.click(within(table).getByRole("button", { name: "Write down as 1 reading" }));
  expect(taken().map(({ read }) => read)).toEqual(["In it: Lower switch port 1"]);
});
