// A lettering on its way to a server that answers late, is away, refuses, or has heard of somebody else's changes; and over reloads.
import { describe, expect, test } from "@jest/globals";
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import type { Save, Sent } from "../bench/saves";
import type { Fault } from "../messages";
import { LetteringSync } from "./letteringSync";

const documentOf = (text: string) =>
  ({
    sheet: { widthMm: 300, heightMm: 160, ground: null },
    blocks: [{ id: "a", text }],
  }) as unknown as LetteringDocument;
const textOf = (document: LetteringDocument) => document.blocks[0]!.text;

/** A server with one lettering, its steps and its version. */
class Server {
  steps = [documentOf("Wren")];
  at = 0;
  version = 1;
  isAway = false;
  losesAnswers = 0;
  refuses: string | null = null;
  sent: Save[] = [];

  get lettering(): Lettering {
    return {
      ...{ letteringId: "n_12345678", briefId: "b_1", name: "Hull letters", changedAt: "" },
      document: structuredClone(this.steps[this.at]!),
      ...{ version: this.version, stepsBack: this.at, stepsForward: this.steps.length - 1 - this.at },
    } as Lettering;
  }
  /** Somebody else saves. */
  change(document: LetteringDocument) {
    this.steps = [...this.steps.slice(0, this.at + 1), document];
    this.at++;
    this.version++;
  }
  send = async (save: Save): Promise<Sent> => {
    await new Promise((r) => setTimeout(r, 1));
    if (this.isAway) return { ok: false, status: 0, fault: { code: "internal", message: "away" } };
    this.sent.push(structuredClone(save));
    if (save.name.startsWith("document")) {
      const { document, version } = save.json as { document: LetteringDocument; version: number };
      if (this.refuses && textOf(document) === this.refuses)
        return { ok: false, status: 400, fault: { code: "letters-too-many", message: "Too many." } };
      if (version !== this.version) {
        const fault = { code: "changed-meanwhile", message: "", details: { lettering: this.lettering } };
        return { ok: false, status: 409, fault };
      }
      this.change(document);
    } else {
      const by = save.path.endsWith("/undo") ? -1 : 1;
      if (!this.steps[this.at + by]) return { ok: false, status: 409, fault: { code: "nothing-to-undo", message: "" } };
      this.at += by;
      this.version++;
    }
    if (this.losesAnswers-- > 0) return { ok: false, status: 0, fault: { code: "internal", message: "lost" } };
    return { ok: true, body: this.lettering };
  };
}

function open(server: Server, box: { saves: Save[] } = { saves: [] }) {
  const faults: Fault[] = [];
  const sync = new LetteringSync(server.lettering, {
    send: server.send,
    store: { read: () => structuredClone(box.saves), write: (saves) => (box.saves = structuredClone(saves)) },
    onSaved: () => {},
    onFault: (fault) => faults.push(fault),
    pause: () => 2,
  });
  const shown = () => textOf(sync.now.draft ?? sync.now.server.document);
  return { sync, faults, box, shown };
}
const soon = () => new Promise((r) => setTimeout(r, 30));

describe("a lettering", () => {
  test("shows what is done at once; each change is one step on the version before", async () => {
    const server = new Server();
    const { sync, shown, box } = open(server);
    for (const text of ["Wren &", "Wren & T", "Wren & Tern"]) sync.change(documentOf(text));
    expect(shown()).toBe("Wren & Tern");
    expect(sync.now.unsaved).toBe(3);
    await sync.settled();
    expect(server.sent.map((s) => s.json!.version)).toEqual([1, 2, 3]);
    expect(server.steps.map(textOf)).toEqual(["Wren", "Wren &", "Wren & T", "Wren & Tern"]);
    expect(box.saves).toEqual([]);
    expect(sync.now).toMatchObject({ unsaved: 0, isFailing: false, server: { stepsBack: 3 } });
  });

  test("undo and redo go in the same line, behind what waits", async () => {
    const server = new Server();
    const { sync, shown } = open(server);
    sync.change(documentOf("Tern"));
    sync.undo();
    await sync.settled();
    expect(shown()).toBe("Wren");
    sync.redo();
    await sync.settled();
    expect(shown()).toBe("Tern");
    sync.undo();
    sync.change(documentOf("Auk"));
    await sync.settled();
    expect(shown()).toBe("Auk");
    expect(server.steps.map(textOf)).toEqual(["Wren", "Auk"]);
  });

  test("nothing to undo is told, and what follows goes on", async () => {
    const server = new Server();
    const { sync, faults, shown } = open(server);
    sync.undo();
    sync.change(documentOf("Tern"));
    await sync.settled();
    expect(faults.map((f) => f.code)).toEqual(["nothing-to-undo"]);
    expect([shown(), textOf(server.lettering.document)]).toEqual(["Tern", "Tern"]);
  });

  test("waits for a server that is away, over a reload, and is sent once", async () => {
    const server = new Server();
    server.isAway = true;
    const { sync, box } = open(server);
    sync.change(documentOf("Tern"));
    sync.change(documentOf("Tern & Auk"));
    await soon();
    expect(sync.now.isFailing).toBe(true);
    const left = structuredClone(box);
    const away = new Server();
    const again = open(away, left);
    expect(again.shown()).toBe("Tern & Auk");
    await again.sync.settled();
    expect(away.steps.map(textOf)).toEqual(["Wren", "Tern", "Tern & Auk"]);
    expect(left.saves).toEqual([]);
    server.isAway = false;
    await sync.settled();
  });

  test("whose answer was lost is no clash", async () => {
    const server = new Server();
    server.losesAnswers = 1;
    const { sync, shown } = open(server);
    sync.change(documentOf("Tern"));
    await sync.settled();
    expect(sync.now).toMatchObject({ clash: null, unsaved: 0 });
    expect([shown(), server.steps.length]).toEqual(["Tern", 2]);
  });

  test("that the server refuses is shown as it was before; later changes go on", async () => {
    const server = new Server();
    server.refuses = "too long";
    const { sync, shown, faults } = open(server);
    sync.change(documentOf("too long"));
    await sync.settled();
    expect([shown(), faults[0]!.code]).toEqual(["Wren", "letters-too-many"]);
    sync.change(documentOf("too long"));
    sync.change(documentOf("Tern"));
    await sync.settled();
    expect([shown(), sync.now.clash]).toEqual(["Tern", null]);
    expect(textOf(server.lettering.document)).toBe("Tern");
  });

  test("read again shows what others did, but never over what waits", async () => {
    const server = new Server();
    const { sync, shown } = open(server);
    server.change(documentOf("Auk"));
    sync.arrived(server.lettering);
    expect(shown()).toBe("Auk");
    sync.change(documentOf("Tern"));
    sync.arrived({ ...server.lettering, version: 99, document: documentOf("Gull") });
    expect(shown()).toBe("Tern");
    await sync.settled();
    expect(shown()).toBe("Tern");
  });
});

describe("changed elsewhere meanwhile", () => {
  const clashed = async () => {
    const server = new Server();
    const opened = open(server);
    server.change(documentOf("Theirs"));
    opened.sync.change(documentOf("Mine"));
    opened.sync.change(documentOf("Mine too"));
    await soon();
    expect(textOf(opened.sync.now.clash!.document)).toBe("Theirs");
    expect(server.steps.map(textOf)).toEqual(["Wren", "Theirs"]);
    return { server, ...opened };
  };

  test("one's own goes on as steps after theirs", async () => {
    const { server, sync, shown } = await clashed();
    sync.settle("mine");
    await sync.settled();
    expect(server.steps.map(textOf)).toEqual(["Wren", "Theirs", "Mine", "Mine too"]);
    expect([shown(), sync.now.clash]).toEqual(["Mine too", null]);
  });

  test("or theirs is shown, and what waited is given up", async () => {
    const { server, sync, shown, box } = await clashed();
    sync.settle("theirs");
    await sync.settled();
    expect(server.steps.map(textOf)).toEqual(["Wren", "Theirs"]);
    expect([shown(), sync.now.clash, sync.now.unsaved]).toEqual(["Theirs", null, 0]);
    expect(box.saves).toEqual([]);
    sync.change(documentOf("Mine after all"));
    await sync.settled();
    expect(textOf(server.lettering.document)).toBe("Mine after all");
  });
});
