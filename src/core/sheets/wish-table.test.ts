import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { PlanIndex } from "../plan";
import { wishTable } from ".";

test("wishes with how each way fares, by the line by which it fares best", () => {
  const [heads, kiln, bell, ...more] = wishTable(PlanIndex.of(lockkeepersHouse()));
  expect(more).toEqual([]);
  expect(heads).toEqual([
    ...["Wish", "To reach", "Service", "From", "Way", "Note"],
    ...["Forward", "VPN at the gateway", "Push out", "IPv6 with a pinhole"],
  ]);
  expect(kiln?.slice(0, 7)).toEqual([
    ...["Kiln, for its maker", "kiln-controller", "https", "203.0.113.40", "forward", ""],
    "works by Fibre line",
  ]);
  expect(bell?.[6]).toBe(
    "works if by Fibre line: you accept that anybody on the internet can try door-bell.",
  );
  expect(bell?.[9]).toMatch(/^cannot by Fibre line: /);
});
