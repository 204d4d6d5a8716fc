// Work told in lines of JSON: each step as it comes, then what came of it; given up when nobody reads.
import { describe, expect, jest, test } from "@jest/globals";
import { refuse, succeed } from "@/contracts/errors";
import { tellSteps } from "./tellSteps";

const linesOf = async (stream: unknown) =>
  (await new Response(stream as ReadableStream).text())
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line) as unknown);
const never = new AbortController().signal;
const last = (value: number) => ({ step: "answered", value });

describe("steps", () => {
  test("are sent as they are told, the answer at the end", async () => {
    const { bytes } = tellSteps<object, number>(
      async (_, tell) => {
        tell({ step: "nearer", share: 0.5 });
        await new Promise((resolve) => setTimeout(resolve, 5));
        return succeed(7);
      },
      last,
      never,
    );
    expect(await linesOf(bytes)).toEqual([
      { step: "nearer", share: 0.5 },
      { step: "answered", value: 7 },
    ]);
  });

  test("end with the reason where there is no answer", async () => {
    const { bytes } = tellSteps(() => Promise.resolve(refuse("no-ink", "x.png: nothing", { place: 2 })), last, never);
    expect(await linesOf(bytes)).toEqual([
      { step: "refused", error: { code: "no-ink", message: "x.png: nothing", details: { place: 2 } } },
    ]);
  });

  test("what is thrown is told as a fault of the server, without its words", async () => {
    const said = jest.spyOn(console, "error").mockImplementation(() => undefined);
    const { bytes } = tellSteps(() => Promise.reject(new Error("a secret path")), last, never);
    const text = JSON.stringify(await linesOf(bytes));
    expect(text).toContain('"code":"internal"');
    expect(text).not.toContain("secret");
    said.mockRestore();
  });

  test("the work hears when nobody reads any more, and nothing is written after", async () => {
    let gone: AbortSignal | null = null;
    let tellLater: (step: object) => void = () => {};
    const { bytes } = tellSteps<object, number>(
      (signal, tell) => {
        [gone, tellLater] = [signal, tell];
        tell({ step: "nearer" });
        return new Promise((resolve) => signal.addEventListener("abort", () => resolve(refuse("let-go"))));
      },
      last,
      never,
    );
    const reader = (bytes as ReadableStream<Uint8Array>).getReader();
    expect(new TextDecoder().decode((await reader.read()).value)).toBe('{"step":"nearer"}\n');
    await reader.cancel();
    expect(gone!.aborted).toBe(true);
    expect(() => tellLater({ step: "late" })).not.toThrow();
  });

  test("and when the request itself is gone", async () => {
    const request = new AbortController();
    let gone: AbortSignal | null = null;
    tellSteps<object, number>((signal) => ((gone = signal), new Promise(() => {})), last, request.signal);
    request.abort();
    expect(gone!.aborted).toBe(true);
  });
});
