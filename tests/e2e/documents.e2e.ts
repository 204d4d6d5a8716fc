// The fonts of documents, as a person asks for them: files chosen in the browser, faces found by letters and by name, bad files refused in words.
import { beforeAll, describe, expect, test } from "@jest/globals";
import fontkit from "@pdf-lib/fontkit";
import { zipSync } from "fflate";
import { PDFDocument, StandardFonts } from "pdf-lib";
import { readFileSync } from "node:fs";
import { makeFont } from "../fixtures/makeFont";
import { openContainer } from "@/core/open/container";
import { api, expectNoAxeFaults, fetchAgain, makeBrief, openBrowser, startIdentify, url } from "./browser";

const browser = openBrowser();
let briefId = "";
let poster: Buffer;
const fontsource = async (family: string, file: string) =>
  (
    await openContainer(
      new Uint8Array(readFileSync(`node_modules/@fontsource/${family}/files/${family}-latin-${file}.woff2`)),
    )
  ).sfnt;

beforeAll(async () => {
  briefId = await makeBrief({ name: "Documents test" });
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  const page = pdf.addPage();
  page.drawText("Skerrow Light", {
    font: await pdf.embedFont(await fontsource("lora", "700-normal"), {
      subset: true,
      customName: "ABCDEF+Hidden-Name",
    }),
    y: 600,
  });
  page.drawText("12 lamps & one tide", {
    font: await pdf.embedFont(makeFont({ family: "Own Hand", stem: 60, serif: 40 })),
    y: 500,
  });
  page.drawText("Open Night", { font: await pdf.embedFont(StandardFonts.Helvetica), y: 400 });
  poster = Buffer.from(await pdf.save());
});

const pick = (files: { name: string; mimeType: string; buffer: Buffer }[]) =>
  browser.page.getByLabel("Documents").setInputFiles(files);
const send = async (name: string, bytes: Uint8Array) => {
  const form = new FormData();
  form.append("document", new Blob([bytes as BlobPart]), name);
  const reply = await fetchAgain(`${url()}/api/v1/documents`, { method: "POST", body: form });
  return {
    status: reply.status,
    body: (await reply.json()) as { fonts?: Record<string, unknown>[]; error?: { code: string; message: string } },
  };
};

describe("fonts of documents", () => {
  test("Identify leads there, and the page says what it takes", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    await page.getByRole("link", { name: "List the fonts in a document" }).click();
    await page.getByRole("heading", { name: "Which fonts are in this document?" }).waitFor();
  });

  test("a PDF: found by its letters under whatever name, nearest where missing", async () => {
    const { page } = browser;
    await pick([{ name: "poster.pdf", mimeType: "application/pdf", buffer: poster }]);
    const lora = page.locator("[data-document-font*='Hidden']");
    await lora.getByText("The same letters are in your libraries.").waitFor({ timeout: 40_000 });
    await lora.locator("[data-match='Lora Bold'] [data-face=ready]").waitFor();
    await lora.getByText("Embedded, only the letters used").waitFor();
    const own = page.locator("[data-document-font*='Own']");
    await own.getByText("Nearest by its letters:").waitFor();
    expect(await own.locator("[data-match]").count()).toBeGreaterThan(1);
    await page.locator("[data-document-font='Helvetica']").getByText("Not embedded").waitFor();
    await expectNoAxeFaults(page);
  });

  test("a face found so is kept, and what was read is there after a reload", async () => {
    const { page } = browser;
    await page.locator("[data-match='Lora Bold']").getByRole("button", { name: "keep" }).click();
    await page.locator("[data-match='Lora Bold']").getByRole("button", { name: "kept" }).waitFor();
    await page.reload();
    await page.locator("[data-document='poster.pdf'] [data-match='Lora Bold']").waitFor();
    const { body } = await api<{ kept: unknown[] }>(`/briefs/${briefId}`);
    expect(body.kept).toHaveLength(1);
  });

  test("several at once; a damaged one and a locked one say so, and the others are read", async () => {
    const { page } = browser;
    await pick([
      { name: "cut.pdf", mimeType: "application/pdf", buffer: poster.subarray(0, 300) },
      {
        name: "page.html",
        mimeType: "text/html",
        buffer: Buffer.from("<style>h1{font-family:'Zilla Slab';font-weight:700}</style><h1>Fog</h1>"),
      },
      {
        name: "notes.txt.zip",
        mimeType: "application/zip",
        buffer: Buffer.from(zipSync({ "notes.txt": new Uint8Array([65]) })),
      },
    ]);
    await page.locator("[data-document='page.html'] [data-match='Zilla Slab Bold']").waitFor({ timeout: 30_000 });
    await page.locator("[data-document='cut.pdf']").getByText("cut.pdf: The document is damaged").waitFor();
    await page
      .locator("[data-document='notes.txt.zip']")
      .getByText("This kind of document is not read")
      .waitFor({ timeout: 30_000 });
    await page.locator("[data-document='cut.pdf']").getByRole("button", { name: "Remove" }).click();
    await page.locator("[data-document='cut.pdf']").waitFor({ state: "detached" });
  });

  test("over HTTP: as agreed, with codes for what cannot be read", async () => {
    const { status, body } = await send("poster.pdf", poster);
    expect(status).toBe(200);
    expect(body.fonts!.map((f) => [f.embedded, Boolean(f.styleId)])).toEqual([
      [true, true],
      [true, false],
      [false, false],
    ]);
    expect(await send("nothing.pdf", new Uint8Array(0))).toMatchObject({
      status: 400,
      body: { error: { code: "document-empty" } },
    });
    const locked = new Uint8Array(1024);
    locked.set([0xd0, 0xcf, 0x11, 0xe0]);
    locked.set(Buffer.from("EncryptedPackage", "utf16le"), 512);
    expect(await send("locked.docx", locked)).toMatchObject({
      body: { error: { code: "document-protected", message: expect.stringContaining("locked.docx") } },
    });
    expect(await send("bomb.docx", zipSync({ "word/document.xml": new Uint8Array(90_000_000) }))).toMatchObject({
      body: { error: { code: "document-too-large" } },
    });
  });
});
