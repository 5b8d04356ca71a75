import { PlanIndex } from "../plan";
import { anInterface } from "../testing/build-plan";
import { cabledGear, letterId, pieceOf } from "../testing/cabled-gear";
import { mac } from "../testing/written";
import { addressNumber, bridgeAddress, UNKNOWN_ADDRESS } from "./bridge-address";

const leg = (name: string, address: string | null) =>
  anInterface({ device: letterId("A"), name, mac: address === null ? null : mac(address) });

const addressOf = (entered: string | null, legs: readonly (string | null)[]) => {
  const bridgeMac = entered === null ? null : mac(entered);
  const index = PlanIndex.of(
    cabledGear({
      gear: { A: { bridgeMac } },
      cables: [],
      interface: legs.map((address, i) => leg(`e${i}`, address)),
    }),
  );
  const device = pieceOf(index, "A");
  return [bridgeAddress(index, device), addressNumber(index, device)];
};

test("the address that is entered, else the lowest of the interfaces', else none that is known", () => {
  expect(addressOf("02:00:00:00:00:ff", ["02:00:00:00:00:01"])).toEqual([
    "02:00:00:00:00:ff",
    0x2_00_00_00_00_ff,
  ]);
  expect(addressOf(null, ["02:00:00:00:01:00", null, "02:00:00:00:00:0a", "02:00:00:00:00:0b"])).toEqual([
    "02:00:00:00:00:0a",
    0x2_00_00_00_00_0a,
  ]);
  expect(addressOf(null, [null])).toEqual([null, UNKNOWN_ADDRESS]);
  expect(addressOf("ff:ff:ff:ff:ff:fe", [])[1]).toBe(UNKNOWN_ADDRESS - 2);
});
