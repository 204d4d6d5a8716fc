// Lettering that is not set plainly, or not seen from the front: small capitals are told as such, a sign seen from the side is evened.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawByBrowser, expectNoAxeFaults, makeBrief, openBrowser, startIdentify, styleNamed } from "./browser";

const browser = openBrowser();
let [briefId, zilla] = ["", ""];
beforeAll(async () => {
  briefId = await makeBrief({ name: "Settings test", uses: ["goods-for-sale"] });
  zilla = (await styleNamed("zilla slab bold")).styleId;
});

async function identify(name: string, css: string, text: string) {
  const { page, context } = browser;
  const buffer = await drawByBrowser(context, zilla, text, css);
  await startIdentify(browser.page, briefId);
  await page.getByLabel("Picture").setInputFiles({ name, mimeType: "image/png", buffer });
  await page.locator("[data-match]").first().waitFor({ timeout: 240_000 });
}
const first = () => browser.page.locator("[data-match]").first().getAttribute("data-match");
async function compareAs(text: string) {
  const { page } = browser;
  await page.getByLabel("Read as").fill(text);
  const answered = page.waitForResponse((r) => r.url().endsWith("/identify/steps") && r.request().method() === "POST");
  await page.getByRole("button", { name: "Compare again" }).click();
  await answered;
  await page.getByText("Comparing every style").waitFor({ state: "hidden", timeout: 240_000 });
}

describe("small capitals", () => {
  test("are found unread, and told", async () => {
    const { page } = browser;
    await identify("small.png", "font-variant-caps:small-caps", "Brass Lantern");
    expect(await first()).toBe("Zilla Slab Bold");
    await page.getByText("Read as small caps.").waitFor();
  });

  test("typed as a sentence they are the same", async () => {
    await compareAs("Brass Lantern");
    expect(await first()).toBe("Zilla Slab Bold");
    await browser.page.getByText("Read as small caps.").waitFor();
    await expectNoAxeFaults(browser.page);
  });

  test("plain text is not taken for them", async () => {
    await identify("plain.png", "", "Brass Lantern");
    expect(await first()).toBe("Zilla Slab Bold");
    expect(await browser.page.getByText("Read as small caps.").count()).toBe(0);
  });
});

describe("a sign seen from the side", () => {
  test("is compared as seen from the front", async () => {
    const { page } = browser;
    await identify("side.png", "transform:perspective(700px) rotateY(34deg)", "Harbour Light");
    await compareAs("Harbour Light");
    // Blurred by the turning, neighbouring weights change places.
    expect(await first()).toMatch(/^Zilla Slab (Semi)?Bold$/);
    await page.getByText("Perspective corrected before comparing.").waitFor();
    expect(await page.locator("[data-answer]").innerText()).toContain("Zilla Slab");
  });
});
