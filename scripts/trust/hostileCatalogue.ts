// Catalogues that do not behave: endless, broken, huge, slow, or leading into this machine.
import { createServer } from "node:http";
import { zipSync } from "fflate";
import { ttf, type Trials } from "./hostileTrials";
import { waitIdle } from "./server";

/** H4 to H6. */
export async function tryCatalogues({ server, trial, healthy }: Trials) {
  const open = "http://opds-spec.org/acquisition/open-access";
  let pages = 0;
  const catalogue = createServer((request, response) => {
    const path = new URL(request.url!, "http://x").pathname;
    const say = (body: unknown, status = 200) => {
      response.writeHead(status, { "content-type": "application/opds+json" });
      response.end(typeof body === "string" || body instanceof Uint8Array ? body : JSON.stringify(body));
    };
    const publication = (id: string, href: string) => ({
      metadata: { identifier: id, title: id },
      links: [{ rel: open, href, type: "application/zip" }],
    });
    const feed = (publications: unknown[], links: unknown[] = []) =>
      say({ metadata: { title: "Hostile" }, links, publications });
    if (path === "/next-self") return feed([], [{ rel: "next", href: "/next-self" }]);
    if (path === "/endless" || path.startsWith("/page")) return feed([], [{ rel: "next", href: `/page${++pages}` }]);
    if (path === "/bad-links")
      return feed([publication("a", "http://["), publication("b", "/%E0%A4%A"), publication("c", "/good.zip")]);
    if (path === "/good.zip") return say(zipSync({ "good.ttf": ttf("From Catalogue", 69) }));
    if (path === "/inner")
      return feed([
        publication("m", "http://169.254.169.254/latest"),
        publication("o", `${server.url}/api/v1/health`),
        publication("r", "/redirect"),
      ]);
    if (path === "/redirect") return response.writeHead(302, { location: `${server.url}/api/v1/briefs` }).end();
    if (path === "/huge") return say(`{"metadata":{"title":"${"x".repeat(9e6)}"}}`);
    if (path === "/deep") return say("[".repeat(200_000));
    if (path === "/slow") return void response.write("{");
    return say("", 404);
  });
  await new Promise<void>((r) => catalogue.listen(0, "127.0.0.1", r));
  const catalogueAt = catalogue.address();
  const home = `http://127.0.0.1:${typeof catalogueAt === "object" && catalogueAt ? catalogueAt.port : 0}`;
  for (const path of ["/next-self", "/endless", "/bad-links", "/inner", "/huge", "/deep", "/%E0%A4%A"])
    await trial(`H4 to H6 a catalogue at ${path}`, 90_000, async () => {
      const { status } = await server.api("/libraries", {
        method: "POST",
        json: { kind: "opds", address: home + path, name: `Hostile ${path.slice(1, 6)}` },
      });
      await waitIdle(server, 80_000);
      if (path === "/bad-links" && !(await server.api<{ total: number }>("/styles?q=from%20catalogue")).body.total)
        return "the good one was not taken";
      return status < 500 || status === 502 || status === 504 ? healthy() : `status ${status}`;
    });

  catalogue.close();
}
