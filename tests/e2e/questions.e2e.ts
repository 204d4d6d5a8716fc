// Finding a face by questions, as a person does: answers by keys and clicks, one changed, the address keeps them, the right family comes up.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, makeBrief, openBrowser, startIdentify, styleNamed } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Questions test", lines: [{ text: "Fog Bell", role: "title" }] });
});
const question = () => browser.page.locator("[data-question]").getAttribute("data-question");

describe("by questions", () => {
  test("the empty view of Identify leads there", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    await page.getByRole("link", { name: "Answer questions about its letters" }).click();
    await page.locator("[data-question]").waitFor();
    await page.locator("[data-drawn=ready]").first().waitFor();
  });

  test("digits answer, 0 cannot tell, the address keeps it all, Backspace takes the last back", async () => {
    const { page } = browser;
    const first = await question();
    await page.keyboard.press("1");
    await page.waitForFunction(
      (before) => document.querySelector("[data-question]")?.getAttribute("data-question") !== before,
      first,
    );
    const second = await question();
    await page.keyboard.press("0");
    await page.waitForFunction(
      (before) => document.querySelector("[data-question]")?.getAttribute("data-question") !== before,
      second,
    );
    expect(new URL(page.url()).searchParams.get("answers")).toBe(`${first}.0~${second}.cannot-tell`);
    await page.reload();
    await page.getByRole("list", { name: "Answers" }).locator("li").nth(1).waitFor();
    await page.getByRole("list", { name: "Answers" }).getByText("Can't tell").waitFor();
    await page.keyboard.press("Backspace");
    await page.getByRole("list", { name: "Answers" }).getByText("Can't tell").waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Change" }).click();
    await page.getByText("Answer what you can.").waitFor();
    expect(await question()).toBe(first);
  });

  test("answers about one face bring its family up", async () => {
    const { page } = browser;
    const { styleId } = await styleNamed("bungee");
    const { body } = await api<{ traits: Record<string, number | null>; family: string }>(`/styles/${styleId}`);
    expect(body.family).toBe("Bungee");
    await page.goto(`/b/${briefId}/identify/questions?answers=cases.2~weight.5~feet.0~lean.1~joined.0`);
    await page.locator('[data-likely="Bungee"]').waitFor({ timeout: 20_000 });
  });

  test("what is no answer is refused or counts for nothing", async () => {
    expect((await api("/describe", { method: "POST", json: { answers: "all" } })).status).toBe(400);
    const { status, body } = await api<{ given: unknown[]; matches: unknown[] }>("/describe", {
      method: "POST",
      json: { answers: [{ questionId: "no-such", answerId: "1" }] },
    });
    expect(status).toBe(200);
    expect(body.given).toEqual([]);
    expect(body.matches.length).toBeGreaterThan(0);
  });
});
