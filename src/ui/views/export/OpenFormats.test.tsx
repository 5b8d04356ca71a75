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
}));
jest.mock("./ImportPlan", () => ({ ImportPlan: () => null }));

const save = (what: RegExp | string) => userEvent.click(screen.getByRole("button", { name: what }));

beforeEach(() => {
  mockSaved.length = 0;
});

test("rules leave as JSON and as access lists, and a name's update as a message; each is said with its size", async () => {
  scene.show(lockkeepersHouse());
  render(<OpenFormats />);
  await save("Save rules as json");
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

test("every device's sheet leaves in one ZIP, three files each, and the schema of plan files as JSON", async () => {
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
