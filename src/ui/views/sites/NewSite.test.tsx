import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MOST_FILE_BYTES } from "@/core/records";
import { NewSite } from "./NewSite";

type Asked = [path: string, method: string, body: Record<string, unknown>];
const mockAsked: Asked[] = [];
let mockAnswer: (answer: object) => void = () => {};
jest.mock("@/ui/plan-store/api", () => ({
  call: (...asked: Asked) => {
    mockAsked.push(asked);
    return new Promise((answer) => {
      mockAnswer = answer;
    });
  },
}));
const mockPush = jest.fn();
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: mockPush }) }));

const FOLDERS = { outside: true, customers: [] };
const NO_ANSWER = { ok: false, status: 0, refused: { code: "no-answer", sentence: "No answer." } };
beforeEach(() => {
  mockAsked.length = 0;
  mockPush.mockClear();
  render(<NewSite folders={FOLDERS} />);
});

const button = () => screen.getByRole<HTMLButtonElement>("button", { name: "Begin the site" });
const chosen = () => screen.getByLabelText<HTMLInputElement>("or from a plan file");
const status = () => screen.getByRole("status").textContent;
const bodies = () => mockAsked.map(([, , body]) => body);
async function begin(name: string) {
  await userEvent.clear(screen.getByLabelText("Name"));
  await userEvent.type(screen.getByLabelText("Name"), name);
  await userEvent.click(button());
}
const aFile = (text: string, name = "boathouse.json") =>
  Object.assign(new File([text], name, { type: "application/json", lastModified: 7 }), {
    text: () => Promise.resolve(text),
  });
/** The file is chosen, and what it leads to has been asked of the server. */
async function send(file: File, asked: number) {
  await userEvent.upload(chosen(), file);
  await screen.findByText(/is sent, checked and stored …/);
  while (mockAsked.length < asked) await new Promise((done) => setTimeout(done, 5));
}

test("without a name nothing is asked, and it is said what a name could be", async () => {
  await userEvent.type(screen.getByLabelText("Name"), "   ");
  await userEvent.click(button());
  expect(screen.getByRole("alert").textContent).toBe(
    "Give the site a name: the customer’s, or the building’s.",
  );
  expect(mockAsked).toEqual([]);
});

test("what is under way is said, nothing else can be begun meanwhile; then its survey is opened", async () => {
  await begin("Boathouse");
  expect([status(), button().disabled, chosen().disabled]).toEqual(["Boathouse is begun …", true, true]);
  const [body] = bodies();
  expect(body).toMatchObject({ by: "name", name: "Boathouse", kind: "office", customer: null });
  mockAnswer({ ok: true, value: {} });
  await Promise.resolve();
  await Promise.resolve();
  expect(mockPush.mock.calls).toEqual([[`/sites/${String(body?.id)}/survey`]]);
});

test("asked again after a lost answer it is the same site; with another name it is another one", async () => {
  await begin("Boathouse");
  mockAnswer(NO_ANSWER);
  expect((await screen.findByRole("alert")).textContent).toBe("No answer.");
  expect([status(), button().disabled]).toEqual(["", false]);
  await userEvent.click(button());
  expect(screen.queryByRole("alert")).toBeNull();
  mockAnswer(NO_ANSWER);
  await screen.findByRole("alert");
  await begin("Weir");
  const [first, second, third] = bodies().map(({ id }) => id);
  expect(second).toBe(first);
  expect(third).not.toBe(first);
});

test("so it is with a plan file, which is sent as it is", async () => {
  await send(aFile('{"format":"dianome-plan"}'), 1);
  expect(status()).toBe("boathouse.json, 1 MB, is sent, checked and stored …");
  mockAnswer(NO_ANSWER);
  await screen.findByRole("alert");
  await send(aFile('{"format":"dianome-plan"}'), 2);
  mockAnswer(NO_ANSWER);
  await screen.findByRole("alert");
  await send(aFile('{"format":"dianome-plan"}', "weir.json"), 3);
  const [first, second, third] = bodies();
  expect(first).toMatchObject({ by: "file", file: { format: "dianome-plan" } });
  expect([second?.id, second?.batch]).toEqual([first?.id, first?.batch]);
  expect([third?.id === first?.id, third?.batch === first?.batch]).toEqual([false, false]);
});

test("each fault of a file that is refused is told, and another file can be chosen", async () => {
  await send(aFile("{}"), 1);
  const faults = [{ sentence: "segments[0]: no." }, { sentence: "hosts[3]: no." }];
  mockAnswer({ ok: false, status: 400, refused: { code: "bad-file", sentence: "segments[0]: no.", faults } });
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toBe("segments[0]: no.hosts[3]: no.");
  expect([status(), chosen().disabled]).toEqual(["", false]);
});

test("what is not JSON, is gone since, or is larger than any plan file is not sent", async () => {
  await userEvent.upload(chosen(), aFile("no JSON"));
  await screen.findByText(/^boathouse.json is not JSON/);
  const gone = aFile("{}");
  gone.text = () => Promise.reject(new DOMException("gone", "NotReadableError"));
  await userEvent.upload(chosen(), gone);
  await screen.findByText(/^boathouse.json can’t be read: it was moved or changed/);
  const large = aFile("{}");
  Object.defineProperty(large, "size", { value: MOST_FILE_BYTES + 1 });
  await userEvent.upload(chosen(), large);
  await screen.findByText(/a plan file has at most \d+ MB\.$/);
  expect(mockAsked).toEqual([]);
});
