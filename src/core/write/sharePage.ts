// The page that a client gets by a link: each face large in the words of the brief, "this one", and a line to write. It is one file; beside
// it the page loads nothing but its fonts. It prints on paper as it stands.
import { quoteCss } from "../webkit/fontsCss";

export type SharedFaceView = {
  styleId: string;
  /** Family and style; what its button says is the family, where no other face has the same. */
  name: string;
  family: string;
  /** Paths of its font files, below the page's address. */
  fonts: readonly string[];
  location: Readonly<Record<string, number>>;
  features: Readonly<Record<string, number>>;
  /** By which factor its size is levelled with the others. */
  level: number;
};
type SharePageInput = {
  title: string;
  lines: readonly string[];
  ink: string;
  paper: string;
  mayComment: boolean;
  /** The day that it ends on, in words. */
  openUntil: string;
  /** Path of the page's own address. */
  path: string;
  /** Of the policy by which the page's own script may run. */
  nonce: string;
  faces: readonly SharedFaceView[];
};

const escapeHtml = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.codePointAt(0)};`);
const isColour = (text: string) => /^#[0-9a-f]{3,8}$/i.test(text);

const STYLE = `
:root { color-scheme: light dark; --ground: #f3efe6; --card: #fbf9f4; --text: #20262b; --quiet: #48525a; --rule: #d8d1c3; --act: #a8431a; --on: #fff }
@media (prefers-color-scheme: dark) { :root { --ground: #161b1f; --card: #1e2429; --text: #f0ece2; --quiet: #b3bcc2; --rule: #38424a; --act: #e08a5f; --on: #161b1f } }
* { box-sizing: border-box }
body { margin: 0; background: var(--ground); color: var(--text); font: 16px/1.45 system-ui, sans-serif }
header, main, footer { max-width: 1100px; margin: 0 auto; padding: 20px max(16px, 3vw) }
h1 { margin: 0; font-size: 24px }
header p { margin: 4px 0 0; color: var(--quiet) }
article { border-top: 1px solid var(--rule); padding: 20px 0 24px; break-inside: avoid }
article h2 { margin: 0 0 10px; font-size: 15px; font-weight: 600 }
article h2 span { color: var(--quiet); font-weight: 400; margin-right: 6px }
.words { margin: 0 -14px; padding: 14px; border-radius: 2px; overflow: hidden }
.words p { margin: 0; line-height: 1.2; overflow-wrap: anywhere }
button { min-height: 44px; padding: 8px 18px; border: 1px solid var(--act); border-radius: 2px; background: none; color: var(--act); font: inherit; font-weight: 600; cursor: pointer }
article button { margin-top: 12px }
button[aria-pressed=true], form button { background: var(--act); color: var(--on) }
:focus-visible { outline: 2px solid currentColor; outline-offset: 2px }
form { display: grid; gap: 12px; border-top: 2px solid var(--text); padding-top: 16px }
label { display: grid; gap: 4px; font-weight: 600 }
input, textarea { min-height: 44px; width: 100%; padding: 8px 10px; border: 1px solid var(--quiet); border-radius: 2px; background: var(--card); color: inherit; font: inherit; font-weight: 400 }
textarea { min-height: 88px }
form button { justify-self: start }
[role=status]:empty, ul:empty { display: none }
[role=status] { margin: 0; font-weight: 600 }
ul { margin: 0; padding: 0 0 0 18px; color: var(--quiet) }
@media print { form, article button { display: none } body { background: #fff } }
`;

/** What the page does: choose one, send it with a name and a line. Nothing that was typed is lost when it cannot be sent. */
const SCRIPT = `
const form = document.querySelector("form"), status = document.querySelector("[role=status]"), sent = document.querySelector("ul");
const buttons = [...document.querySelectorAll("button[data-style]")];
let chosen = null;
for (const button of buttons) button.addEventListener("click", () => {
  chosen = chosen === button ? null : button;
  for (const other of buttons) other.setAttribute("aria-pressed", String(other === chosen));
  document.querySelector("output").value = chosen ? chosen.dataset.name : "none yet";
  status.textContent = "";
});
form.addEventListener("submit", async (event) => {
  event.preventDefault();
  const name = form.elements.name.value.trim(), comment = form.elements.comment ? form.elements.comment.value.trim() : "";
  if (!chosen) { status.textContent = "Choose a face first."; return; }
  const button = form.querySelector("button");
  button.disabled = true;
  status.textContent = "Sending …";
  try {
    const answer = await fetch(location.pathname.replace(/[/]$/, "") + "/answers", {
      method: "POST", headers: { "content-type": "application/json" },
      body: JSON.stringify({ name, styleId: chosen.dataset.style, chosen: true, ...(comment && { comment }) }),
    });
    const body = await answer.json().catch(() => null);
    if (!answer.ok) throw new Error(body && body.error ? body.error.message : "The server answered " + answer.status + ".");
    status.textContent = "Sent. Thank you, " + name + ".";
    const line = document.createElement("li");
    line.textContent = chosen.dataset.name + (comment ? ": " + comment : "");
    sent.append(line);
    if (form.elements.comment) form.elements.comment.value = "";
  } catch (error) {
    status.textContent = (error instanceof TypeError ? "The server does not answer." : error.message) + " What you wrote is still here.";
  } finally { button.disabled = false; }
});
`;

export function writeSharePage(page: SharePageInput): string {
  const { title, mayComment, openUntil, nonce, faces } = page;
  const rules = faces.flatMap((face, i) =>
    face.fonts.map(
      (font, k) =>
        `@font-face { font-family: "face-${i}-${k}"; src: url(${quoteCss(`${page.path}/fonts/${font}`)}) format("woff2"); font-weight: 1 1000; font-display: swap }`,
    ),
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escapeHtml(title)}</title>
<style>${STYLE}${rules.join("\n")}</style>
</head>
<body>
<header>
<h1>${escapeHtml(title)}</h1>
<p>${faces.length} ${faces.length === 1 ? "face" : "faces"} in your words. Choose one${mayComment ? " and write a line" : ""}; this page is open until ${escapeHtml(openUntil)}.</p>
</header>
<main>
${faces.map((face, i) => writeFace(page, face, i)).join("\n")}
<form>
<label>Your name<input name="name" required maxlength="80" autocomplete="name"></label>
<p style="margin:0">Chosen: <output>none yet</output></p>
${mayComment ? '<label>Comment<textarea name="comment" maxlength="2000"></textarea></label>' : ""}
<button>Send</button>
<p role="status"></p>
<ul aria-label="What you sent"></ul>
</form>
</main>
<noscript><footer>This page needs JavaScript to send your choice.</footer></noscript>
<script nonce="${escapeHtml(nonce)}">${SCRIPT}</script>
</body>
</html>
`;
}

/** The first line stands large, the others at half its size. */
const SECOND = 0.5;

function writeFace({ lines, ink, paper, faces }: SharePageInput, face: SharedFaceView, i: number): string {
  const settings = (values: Readonly<Record<string, number>>) =>
    Object.entries(values)
      .map(([tag, value]) => `${quoteCss(tag)} ${value}`)
      .join(", ");
  const stack = [...face.fonts.map((_, k) => `"face-${i}-${k}"`), "sans-serif"].join(", ");
  const style = [
    `font-family: ${stack}`,
    "font-synthesis: none",
    Object.keys(face.location).length && `font-variation-settings: ${settings(face.location)}`,
    Object.keys(face.features).length && `font-feature-settings: ${settings(face.features)}`,
  ].filter(Boolean);
  const size = (share: number) => {
    const by = (px: number) => (px * share * face.level).toFixed(1);
    return `clamp(${by(30)}px, ${(8.5 * share * face.level).toFixed(2)}vw, ${by(92)}px)`;
  };
  const words = lines.map((line, k) => `<p style="font-size: ${size(k ? SECOND : 1)}">${escapeHtml(line)}</p>`);
  const isAlone = faces.filter((f) => f.family === face.family).length === 1;
  const colours = isColour(ink) && isColour(paper) ? `background: ${paper}; color: ${ink}; ` : "";
  return `<article>
<h2><span>${i + 1}</span>${escapeHtml(face.name)}</h2>
<div class="words" style="${escapeHtml(colours + style.join("; "))}">
${words.join("\n")}
</div>
<button type="button" aria-pressed="false" data-style="${escapeHtml(face.styleId)}" data-name="${escapeHtml(face.name)}">Choose ${escapeHtml(isAlone ? face.family : face.name)}</button>
</article>`;
}

/** What stands where a link leads to nothing any more. */
export const writeShareGone = (says: string): string => `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeHtml(says)}</title><style>${STYLE}</style></head>
<body><main><h1>${escapeHtml(says)}</h1><p>Ask whoever sent it to you for another one.</p></main></body>
</html>
`;
