// Identifying over HTTP, told step by step: words and lines as set, and the same as a camera might have taken them; until the first faces are
// named, and until the answer. Called by bench.mjs and benchLarge.mjs.
import { chromium } from "playwright-core";
import sharp from "sharp";
import { quantile } from "./quantile.mjs";
import { fetchAgain } from "./server.mjs";

const LETTERING = [
  ["lora bold", "Evening Watch", "font-size:72px"],
  ["dancing script bold", "Keepers of the Lamp", "font-size:64px;color:#f3efe6;background:#1c6b74"],
  ["oswald", "HARBOUR PLATE", "font-size:28px"],
  ["zilla slab bold", "Fog Bell", "font-size:140px;color:#a8431a"],
  ["work sans", "High water 04:52", "font-size:48px"],
  ["lora bold", "Evening", "font-size:72px"],
  ["dancing script bold", "Keepers", "font-size:64px;color:#f3efe6;background:#1c6b74"],
  ["oswald", "HARBOUR", "font-size:28px"],
  ["zilla slab bold", "Foghorn", "font-size:140px;color:#a8431a"],
  ["work sans", "Lantern", "font-size:48px"],
];
/** Signs of painted letters before planks, seen from the side, out of focus and compressed. */
const PHOTOGRAPHED = [
  ["lora bold", "Evening Watch", "rotateY(38deg) rotateZ(-3deg)"],
  ["oswald", "Harbour Plate", "rotateY(-44deg)"],
  ["zilla slab bold", "Foghorn", "rotateX(30deg) rotateZ(5deg)"],
  ["work sans", "Lantern Supper", "rotateY(30deg) rotateX(-18deg)"],
  ["dancing script bold", "Keepers", "rotateY(-30deg) rotateZ(4deg)"],
];
const BOARD =
  "font-size:88px;padding:40px;background:repeating-linear-gradient(91deg,#5b4632 0 37px,#70583f 37px 71px,#4c3a2a 71px 74px)";
const PAINT =
  "background:linear-gradient(175deg,#f4d58a,#d0802f 55%,#f0e3c0);-webkit-background-clip:text;color:transparent;-webkit-text-stroke:1.5px #2b1a10;filter:drop-shadow(4px 5px 2px #0009)";

export async function launchBrowser() {
  return chromium.launch({
    executablePath: "/usr/bin/chromium-headless-shell",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
}

/** Words and lines set by the browser in fonts of the library, of several sizes and colours; and signs. @returns { png, text, kind } each. */
export async function drawPictures(url) {
  const browser = await launchBrowser();
  const page = await browser.newPage();
  const draw = async (q, html) => {
    const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&q=${encodeURIComponent(q)}`)).json();
    const font = Buffer.from(
      await (await fetchAgain(`${url}/api/v1/styles/${items[0].styleId}/file`)).arrayBuffer(),
    ).toString("base64");
    await page.setContent(
      `<style>@font-face{font-family:f;src:url(data:font/woff2;base64,${font})}#t{display:inline-block;font-family:f;white-space:pre}</style>${html}`,
    );
    await page.evaluate(() => document.fonts.ready);
    return page.locator("#t").screenshot();
  };
  const out = [];
  for (const [q, text, css] of LETTERING) {
    const png = await draw(q, `<div id=t style="padding:24px 32px;background:#fff;${css}">${text}</div>`);
    out.push({ png, text, kind: text.includes(" ") ? "a line of two to four words" : "one word" });
  }
  for (const [q, text, turned] of PHOTOGRAPHED) {
    const drawn = await draw(
      q,
      `<div id=t style="perspective:900px;${BOARD}"><div style="transform:${turned};${PAINT}">${text}</div></div>`,
    );
    const png = await sharp(drawn).removeAlpha().blur(0.9).jpeg({ quality: 62 }).toBuffer();
    out.push({ png, text, kind: "a photograph" });
  }
  await browser.close();
  return out;
}

/** Asks about each picture several times, after a round to warm up. @returns milliseconds of each kind: until the first faces, until the answer. */
async function timeAll(url, pictures, rounds) {
  const took = new Map();
  for (let round = 0; round <= rounds; round++)
    for (const { png, text, kind } of pictures) {
      const form = new FormData();
      form.append("image", new File([png], "p.png"));
      form.append("text", text);
      const began = performance.now();
      const reply = await fetchAgain(`${url}/api/v1/identify/steps`, { method: "POST", body: form });
      let [told, first] = ["", null];
      for await (const part of reply.body.pipeThrough(new TextDecoderStream())) {
        told += part;
        if (told.includes('"step":"nearer"') || told.includes('"step":"answered"')) first ??= performance.now() - began;
      }
      if (!told.includes('"step":"answered"')) throw new Error(`“${text}” was not answered: ${told.slice(-300)}`);
      const times = took.get(kind) ?? { first: [], answer: [] };
      took.set(kind, times);
      if (round) {
        times.first.push(first);
        times.answer.push(performance.now() - began);
      }
    }
  return took;
}

/** Wanted, milliseconds: the answer's median and 95th percentile, by kind. */
const WANTED = { "one word": [300, 500], "a line of two to four words": [1000, 1500], "a photograph": [1500, 3000] };
const FIRST_WANTED = 400;

/** @param what - said before each figure. @param note - as in bench.mjs. */
export async function benchIdentify({ url, pictures, what, note, rounds = 5, slower = 1 }) {
  const decode = [];
  for (const { png } of pictures) {
    const began = performance.now();
    await sharp(png).raw().toBuffer();
    decode.push(performance.now() - began);
  }
  const floor = `decoding alone ${quantile(decode, 0.5).toFixed(1)} ms`;
  for (const [kind, { first, answer }] of await timeAll(url, pictures, rounds)) {
    const [median, most] = WANTED[kind].map((ms) => ms * slower);
    note(`${what}identify ${kind}, first faces, median`, quantile(first, 0.5), "ms", FIRST_WANTED, "lower", floor);
    note(`${what}identify ${kind}, median`, quantile(answer, 0.5), "ms", median, "lower", floor);
    note(`${what}identify ${kind}, p95`, quantile(answer, 0.95), "ms", most, "lower");
  }
}
