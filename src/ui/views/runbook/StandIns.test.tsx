import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { decodeChanges, encodeChanges } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex, type Change } from "@/core/plan";
import { provenRunbook } from "@/core/runbook";
import { StandInSite } from "@/stand-in/devices/site";
import { StandIns } from "./StandIns";

const plan = lockkeepersHouse();
const index = PlanIndex.of(plan);
const runbook = must(provenRunbook(index, null), "an order").runbook;

// The stand-ins themselves, without the network between.
let mockClock = 0;
let mockSite = must(
  StandInSite.of(index, () => mockClock),
  "a site",
);
let mockFault: string | null = null;
let mockRevision = 4;
interface MockBody {
  readonly do: string;
  readonly port?: string;
  readonly device?: string;
  readonly changes?: unknown;
  readonly asking?: {
    readonly what: string;
    readonly says?: string;
    readonly text?: string;
    readonly changes?: unknown;
  };
}
const mockAsk = (device: string, asking: NonNullable<MockBody["asking"]>) => {
  if (!mockSite.answers(device)) return null;
  const own = must(mockSite.device(device), "a device");
  if (asking.what === "save") mockSite.save(own);
  else if (asking.says === "yang") mockSite.take(own, asking.text ?? "");
  else mockSite.takeSettings(own, decodeChanges(asking.changes));
  return mockSite.reaches(device) ? { status: 204, text: "" } : null;
};
jest.mock("../../plan-store/api", () => ({
  call: (_: string, method: string, body: MockBody) => {
    if (mockFault !== null)
      return Promise.resolve({
        ok: false,
        status: 409,
        refused: { code: "no-stand-ins", sentence: mockFault },
      });
    let heard = null;
    if (method === "POST") {
      const device = mockSite.device(body.device ?? "");
      if (body.do === "ask") heard = mockAsk(body.device ?? "", must(body.asking, "a question"));
      else if (body.do === "plug") mockSite.plug(body.port ?? null);
      else if (body.do === "begin") mockSite.begin(decodeChanges(body.changes) as Change[]);
      else if (body.do === "power") mockSite.power(must(device, "a device"));
      else if (body.do === "powerCut") mockSite.restart(must(device, "a device"));
      else mockSite.reset(must(device, "a device"));
    }
    const state = mockSite.state();
    return Promise.resolve({
      ok: true,
      value: { state: { ...state, revision: mockRevision, changes: encodeChanges(state.changes) }, heard },
    });
  },
}));

beforeEach(() => {
  mockClock = 0;
  mockFault = null;
  mockRevision = 4;
});

const shown = (revision: number | null) => (
  <StandIns index={index} revision={revision} found={{ from: "box" }} runbook={runbook} />
);
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
const rowOf = (name: string) =>
  must(
    within(screen.getByRole("list", { name: "Stand-in devices" }))
      .getAllByRole("listitem")
      .find((row) => row.textContent?.startsWith(name)),
    name,
  );

test("in the order found each device answers; what is not saved is gone after a power cut", async () => {
  mockSite = must(
    StandInSite.of(index, () => mockClock),
    "a site",
  );
  render(shown(4));
  await screen.findByRole("list", { name: "Stand-in devices" });
  expect(rowOf("Gateway").textContent).toContain("no power");
  for (let step = 0; step < 3; step += 1) {
    await press("As the order has it");
    await press("Send it");
  }
  const log = screen.getByRole("list", { name: "What came of it" });
  expect(log.textContent).toContain("Gateway has power; it is as it came out of the box.");
  expect(log.textContent).toMatch(/Gateway: Spanning tree off, priority 32768 Answered 204 after \d+ ms\./);
  expect(rowOf("Gateway").textContent).toContain("✓ answers the laptop; not saved");

  await press("Save: Gateway");
  expect(rowOf("Gateway").textContent).not.toContain("not saved");
  await press("As the order has it");
  await press("Send it");
  await press("Power cut: Gateway");
  expect(rowOf("Gateway").textContent).toContain("starting");
  mockClock = 1_500;
  expect(await screen.findByText("✓ answers the laptop", undefined, { timeout: 5_000 })).not.toBeNull();

  // From where nothing leads to it, it keeps silent.
  await press("Reset: Hall switch");
  await press("From the start");
  expect(rowOf("Gateway").textContent).toContain("no power");
  expect(screen.getByRole("list", { name: "What came of it" }).textContent).toContain(
    "the laptop is nowhere",
  );
});

test("as long as they are devices of another plan nothing is sent, and it says why", async () => {
  const button = () => screen.getByRole<HTMLButtonElement>("button", { name: "From the start" });
  const { rerender } = render(shown(null));
  await screen.findByRole("list", { name: "Stand-in devices" });
  expect(screen.getByText(/^The server does not have the last edits yet/)).not.toBeNull();
  expect(button().disabled).toBe(true);
  rerender(shown(5));
  expect(screen.getByText(/^The stand-ins are devices of another revision/)).not.toBeNull();
  expect(button().disabled).toBe(true);
  mockRevision = 5;
  await waitFor(() => expect(button().disabled).toBe(false), { timeout: 10_000 });
  expect(screen.queryByText(/another revision/)).toBeNull();
});

test("where none run it says so, and how to start them", async () => {
  mockFault = "No stand-in devices run here. The demo starts them: bin/demo.";
  render(shown(4));
  expect((await screen.findByRole("alert")).textContent).toContain("The demo starts them: bin/demo.");
  mockFault = null;
  await press("Try again");
  expect(await screen.findByRole("list", { name: "Stand-in devices" })).not.toBeNull();
});
