import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { deviceData, yangText } from "@/core/device-sheet";
import { Drift } from "./Drift";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.recordModule,
);
const mockStarted: unknown[] = [];
jest.mock("./use-runbook", () => ({
  ...jest.requireActual<object>("./use-runbook"),
  startRunbook: (_: unknown, found: unknown) => mockStarted.push(found),
}));
const mockAnswers = new Map<string, unknown>();
const mockAsked: unknown[] = [];
jest.mock("../../plan-store/api", () => ({
  call: (path: string, method: string, body: unknown) => {
    if (method === "POST") mockAsked.push(body);
    const answer = mockAnswers.get(`${method ?? "GET"} ${path.split("/").at(-1)}`);
    return Promise.resolve(
      answer ?? { ok: false, status: 409, refused: { code: "x", sentence: "Nobody is there." } },
    );
  },
}));

const plan = fennelStreet();
const index = PlanIndex.of(plan);

function Shown() {
  const now = scene.planModule.useIndex();
  return <Drift index={now} found={{ from: "record", record: scene.record.store.getState().record }} />;
}

beforeEach(() => {
  mockStarted.length = 0;
  mockAsked.length = 0;
  mockAnswers.clear();
  scene.show(plan);
});

async function openFor(name: string): Promise<void> {
  await userEvent.click(screen.getByRole("button", { name: "Read a device" }));
  await userEvent.click(screen.getByRole("button", { name: /^Device:/ }));
  await userEvent.type(
    within(screen.getByRole("dialog", { name: "Device" })).getByRole("combobox"),
    `${name}{Enter}`,
  );
}
async function paste(text: string): Promise<void> {
  const box = screen.getByRole("textbox", { name: /^Paste its table/ });
  await userEvent.clear(box);
  await userEvent.click(box);
  await userEvent.paste(text);
}

test("a pasted table is read, laid beside the plan, noted, taken over, and taken back", async () => {
  render(<Shown />);
  expect(screen.getByText(/^Nothing is known of the devices yet/)).not.toBeNull();
  await openFor("Lower switch");
  await paste("hello");
  expect(screen.getByRole("alert").textContent).toMatch(/^No line names the columns/);
  await paste("Port\tPVID\tUntagged\tTagged\n7\t20\t20\t30\n8\t50\t50\t30\neth99\t1\t1\t\n");
  const pane = screen.getByRole("region", { name: "Read a device" });
  expect(pane.textContent).toContain("Read: 2 ports. 1 thing is on Lower switch otherwise than planned.");
  expect(pane.textContent).toContain("eth99: no port of Lower switch is surely meant");
  expect(pane.textContent).toContain("Lower switch port 8: PVID 50, planned 20; untagged 50, planned 20");
  await userEvent.click(screen.getByRole("button", { name: "Note it as what is on Lower switch" }));

  const [entry] = scene.record.store.getState().record;
  expect(entry?.entry).toMatchObject({ do: "read", from: "paste", saw: { legs: false, vlans: false } });
  expect(mockStarted).toMatchObject([{ from: "record" }]);
  const own = screen.getByRole("region", { name: "Lower switch" });
  expect(own.textContent).toContain("1 difference");
  await userEvent.click(
    screen.getByRole("button", { name: "Take Lower switch port 8 into the plan as it is" }),
  );
  const batch = must(scene.written.at(-1)?.batch, "a batch");
  expect(batch.summary).toBe("1 thing planned as on Lower switch now");
  expect(batch.changes).toHaveLength(1);
  expect(screen.queryByRole("region", { name: "Lower switch" })).toBeNull();
  expect(screen.getByText("✓ What is known to be on the devices is as planned.")).not.toBeNull();

  await userEvent.click(screen.getByRole("button", { name: "Take the reading of Lower switch back" }));
  expect(screen.queryByRole("list", { name: "Read" })).toBeNull();
});

test("the stand-in is asked, and its silence is told", async () => {
  const device = must(
    [...plan.device.values()].find(({ name }) => name === "Lower switch"),
    "the switch",
  );
  const state = { changes: [], unsaved: [], starting: [], laptop: null };
  mockAnswers.set("POST stand-ins", { ok: true, value: { state, heard: null } });
  render(<Shown />);
  await openFor("Lower switch");
  await userEvent.click(screen.getByRole("button", { name: "Ask the stand-in" }));
  expect((await screen.findByRole("alert")).textContent).toMatch(/^Lower switch keeps silent/);
  const text = `{"ietf-restconf:data":${yangText(deviceData(index, device))}}`;
  mockAnswers.set("POST stand-ins", { ok: true, value: { state, heard: { status: 200, text } } });
  await userEvent.click(screen.getByRole("button", { name: "Ask the stand-in" }));
  expect(await screen.findByText("26 ports, 9 VLANs and 1 address")).not.toBeNull();
  expect(screen.getByText(/All of it is as planned/)).not.toBeNull();
  expect(mockAsked.at(-1)).toEqual({ do: "ask", device: device.id, asking: { what: "read" } });
});

test("a real device is asked where the start allows it; the password is in no text of the page", async () => {
  mockAnswers.set("GET read-device", { ok: true, value: { allowed: ["10.24.10.3"] } });
  render(<Shown />);
  await openFor("Lower switch");
  await userEvent.type(await screen.findByLabelText("Its user"), "installer");
  await userEvent.type(screen.getByLabelText("Password, for this once"), "a word");
  await userEvent.click(screen.getByRole("button", { name: "Ask it" }));
  expect((await screen.findByRole("alert")).textContent).toBe("Nobody is there.");
  expect(mockAsked).toEqual([
    { address: "10.24.10.3", user: "installer", password: "a word", fingerprint: "" },
  ]);
  expect(document.body.textContent).not.toContain("a word");
});
