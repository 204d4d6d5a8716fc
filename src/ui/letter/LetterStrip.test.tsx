/** @jest-environment jsdom */
// The strip of letters: pairs by keys, letters chosen, other forms put in; and values that are typed.
import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Block } from "@/contracts/lettering";
import type { DrawnForm, LaidBlock, LaidLetter } from "./letterTasks";
import { NumberField } from "./NumberField";

jest.unstable_mockModule("../bench/BenchContext", () => ({ useBench: () => ({ say: () => {} }) }));
const { LetterStrip } = await import("./LetterStrip");

const blockOf = (text: string, more: Partial<Block> = {}): Block => ({
  ...{ id: "line-1", text, styleId: "s_aaaaaaaaaaaa" as Block["styleId"], size: { emMm: 50 } },
  ...{ at: { xMm: 20, yMm: 80 }, fill: "#20262b" },
  ...more,
});
const letterOf = (text: string, at: number, more: Partial<LaidLetter> = {}): LaidLetter => ({
  ...{ at, text, cluster: at, isMissing: false, line: 0, turnRad: 0, advanceMm: 30 },
  ...{ from: { xMm: 30 * at, yMm: 80 }, to: { xMm: 30 * at + 30, yMm: 80 }, d: "M0 0L1 1Z", box: null },
  ...{ parts: 1, hasForms: false, glyphId: 40 + at },
  ...more,
});
const laid: LaidBlock = {
  ...{ id: "line-1", emMm: 50, ink: null, missing: ["☃"], parts: [], points: null },
  letters: [letterOf("W", 0), letterOf("&", 1, { hasForms: true }), letterOf("☃", 2, { isMissing: true })],
};
const FORMS: DrawnForm[] = [
  { glyphId: 7, feature: null, value: 0, d: "M0 0", advanceEm: 0.6 },
  { glyphId: 19, feature: "swsh", value: 1, d: "M0 0", advanceEm: 0.9 },
];

let changed: Block[] = [];
let chosen: number[] = [];
beforeEach(() => {
  changed = [];
  chosen = [];
});
afterEach(cleanup);
const open = (block: Block, at: number | null = null) => {
  render(
    <LetterStrip
      {...{ block, laid, at }}
      forms={at === 1 ? FORMS : []}
      onChoose={(letter) => chosen.push(letter)}
      onChange={(next) => changed.push(next)}
    />,
  );
  return userEvent.setup();
};

describe("pairs", () => {
  test("are five thousandths by an arrow, fifty with Shift, one with Alt", async () => {
    const user = open(blockOf("W&☃", { pairs: [{ at: 0, shiftEm: -0.038 }] }));
    const handle = screen.getByRole("button", { name: "Between W &: -38 thousandths of an em, -1.9 mm" });
    handle.focus();
    await user.keyboard("{ArrowRight}{Shift>}{ArrowLeft}{/Shift}{Alt>}{ArrowRight}{/Alt}");
    expect(changed.map((b) => b.pairs![0]!.shiftEm)).toEqual([-0.033, -0.088, -0.037]);
  });

  test("say where nothing was kerned, and a pair brought back to nothing is gone", async () => {
    const user = open(blockOf("W&☃", { pairs: [{ at: 1, shiftEm: 0.005 }] }));
    expect(screen.getByRole("button", { name: /^Between W &: 0 thousandths/ }).textContent).toBe("0");
    screen.getByRole("button", { name: /^Between & ☃: 5 thousandths/ }).focus();
    await user.keyboard("{ArrowLeft}");
    expect(changed[0]!.pairs).toBeUndefined();
  });
});

describe("letters", () => {
  test("are chosen by a click; one that the face lacks says so", async () => {
    const user = open(blockOf("W&☃"));
    await user.click(screen.getByRole("button", { name: "Letter W" }));
    expect(chosen).toContain(0);
    expect(screen.getByRole("button", { name: "☃, not in this face" })).toBeDefined();
    expect(screen.getByRole("button", { name: "Letter &, has other forms" })).toBeDefined();
  });

  test("take another form, and the one that comes by itself again", async () => {
    const user = open(blockOf("W&☃"), 1);
    expect(screen.getByRole("button", { name: "As it comes" }).getAttribute("aria-pressed")).toBe("true");
    await user.click(screen.getByRole("button", { name: "swsh 1" }));
    expect(changed[0]!.letters).toEqual([{ at: 1, glyphId: 19, feature: "swsh" }]);
    cleanup();
    const again = open(changed[0]!, 1);
    expect(screen.getByRole("button", { name: "swsh 1" }).getAttribute("aria-pressed")).toBe("true");
    await again.click(screen.getByRole("button", { name: "As it comes" }));
    expect(changed[1]!.letters).toBeUndefined();
    expect(screen.getByText(/U\+0026/)).toBeDefined();
  });
});

describe("a value that is typed", () => {
  const put = jest.fn();
  beforeEach(() => {
    put.mockClear();
  });
  const field = (value: number) => {
    render(<NumberField label="Size" value={value} unit="mm" least={1} most={500} onChange={put} />);
    return { user: userEvent.setup(), input: screen.getByLabelText<HTMLInputElement>(/^Size/) };
  };

  test("counts by Enter or when the field is left, with a comma too, within its bounds", async () => {
    const { user, input } = field(120);
    await user.clear(input);
    await user.type(input, "84,5{Enter}");
    expect(put).toHaveBeenLastCalledWith(84.5);
    await user.clear(input);
    await user.type(input, "9000");
    await user.tab();
    expect(put).toHaveBeenLastCalledWith(500);
  });

  test("that is no number, or given up by Escape, changes nothing", async () => {
    const { user, input } = field(120);
    await user.clear(input);
    await user.type(input, "large{Enter}");
    await user.clear(input);
    await user.type(input, "7{Escape}");
    await user.tab();
    expect(put).not.toHaveBeenCalled();
    expect(input.value).toBe("120");
  });

  test("is stepped by arrows, tenfold with Shift, a tenth with Alt", async () => {
    const { user, input } = field(120);
    input.focus();
    await user.keyboard("{ArrowUp}{Shift>}{ArrowDown}{/Shift}{Alt>}{ArrowUp}{/Alt}");
    expect(put.mock.calls.map(([v]) => v)).toEqual([121, 110, 120.1]);
  });
});
