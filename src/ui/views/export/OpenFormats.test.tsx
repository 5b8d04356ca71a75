import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { afterEdit, donePlan } from "@/core/testing/after-edit";
import { OpenFormats } from "./OpenFormats";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
const mockSaved: { name: string; type: string; size: number }[] = [];
jest.mock("../../kit/download", () => ({
  ...jest.requireActual<object>("../../kit/download"),
  download: (name: string, type: string, text: string) => mockSaved.push({ name, type, size: text.length }),
  downloadBlob: (name: string, blob: Blob) => mockSaved.push({ name, type: blob.type, size: blob.size }),
  handOver: (name: string, blob: Blob) => mockSaved.push({ name, type: "", size: blob.size }),
}));
jest.mock("./ImportPlan", () => ({ ImportPlan: () => null }));

const save = (what: RegExp | string) => userEvent.click(screen.getByRole("button", { name: what }));

beforeEach(() => {
  mockSaved.length = 0;
});

test("rules leave as JSON and access lists, a name's update as a message; each with its size", async () => {
  scene.show(lockkeepersHouse());
  render(<OpenFormats />);
  await save("Save rules as JSON");
  expect(screen.getByRole("status").textContent).toMatch(/rules\.json is written: \d+ lines, \d+ kB/);
  await save("Save access lists");
  await save("Save update of lock.example");
  expect(screen.getByRole("status").textContent).toMatch(
    /lock\.example is 198\.51\.100\.70, in the zone example\. Nothing was sent\./,
  );
  expect(mockSaved.map(({ type }) => type)).toEqual([
    "application/json",
    "application/yang-data+json",
    "application/dns-message",
  ]);
  expect(mockSaved.every(({ size }) => size > 40)).toBe(true);
});

test("the history comes from the server, which writes it itself; why it does not is said", async () => {
  scene.show(lockkeepersHouse());
  const { id } = lockkeepersHouse().site;
  const asked: string[] = [];
  let answer = () => Promise.resolve(new Response("{}", { status: 200 }));
  const before = globalThis.fetch;
  globalThis.fetch = (address) => {
    asked.push(String(address));
    return answer();
  };
  try {
    render(<OpenFormats />);
    const said = async () => {
      await save("Save plan file with its history");
      return screen.getByRole("status").textContent;
    };
    expect(await said()).toMatch(/plan-with-history\.json is written: 1 kB\./);
    expect([asked, mockSaved]).toEqual([
      [`/api/sites/${id}/exports/plan-with-history.json`],
      [{ name: "lockkeeper-s-house-plan-with-history.json", type: "", size: 2 }],
    ]);
    const refused = JSON.stringify({ code: "no-such-export", sentence: "It would have more than 104 MB." });
    answer = () => Promise.resolve(new Response(refused, { status: 404 }));
    expect(await said()).toBe("It would have more than 104 MB.");
    answer = () => Promise.reject(new TypeError("away"));
    expect(await said()).toMatch(/The server does not answer/);
    answer = () => Promise.resolve(new Response("<html>", { status: 502 }));
    expect(await said()).toMatch(/\(502\) could not be read/);
    expect(mockSaved).toHaveLength(1);
  } finally {
    globalThis.fetch = before;
  }
});

test("a name whose line has no address noted gets no file but the reason", async () => {
  scene.show(
    donePlan(
      afterEdit(lockkeepersHouse(), ({ edits }) => {
        for (const leg of edits.all("interface"))
          if (leg.line !== null) edits.patch("interface", leg.id, { addresses4: [], addresses6: [] });
        return null;
      }),
    ),
  );
  render(<OpenFormats />);
  await save("Save update of lock.example");
  expect(screen.getByRole("status").textContent).toMatch(/Nobody has noted the address that Fibre line has/);
  expect(mockSaved).toEqual([]);
});

test("every device's sheet leaves in one ZIP, three files each, and the plan files' schema", async () => {
  scene.show(lockkeepersHouse());
  render(<OpenFormats />);
  await save("Save sheets of all devices");
  const devices = scene.store.getState().held.index.plan.device.size;
  expect(
    await screen.findByText(new RegExp(`device-sheets\\.zip is written: ${3 * devices} files`)),
  ).not.toBeNull();
  await save("Save schema of plan files");
  expect(mockSaved.map(({ type }) => type)).toEqual(["application/zip", "application/schema+json"]);
  expect(mockSaved.every(({ size }) => size > 2000)).toBe(true);
});
