import { expect, test } from "@jest/globals";
import { writePrice } from "./words";

test.each([
  [8600, "EUR", "€86"],
  [8650, "EUR", "€86.50"],
  [129_900, "GBP", "£1,299"],
  [4000, "USD", "US$40"],
  [4000, "barter", "barter 40"],
])("%d of %s is written %s", (cents, currency, written) => expect(writePrice(cents, currency)).toBe(written));
