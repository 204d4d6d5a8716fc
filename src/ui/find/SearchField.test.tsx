/** @jest-environment jsdom */
// The find field: what is typed reaches the address, what could follow is chosen by keys, and an address that changed elsewhere is followed.
import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { SearchField } from "./SearchField";

const SUGGESTIONS = ["slab", "slanted"].map((word) => ({ label: word, becomes: word, kind: "word", note: "" }));
const asked: string[] = [];
beforeEach(() => {
  asked.length = 0;
  globalThis.fetch = jest.fn((address: string) => {
    asked.push(address);
    return Promise.resolve({ ok: true, json: () => Promise.resolve({ suggestions: SUGGESTIONS }) });
  }) as unknown as typeof fetch;
});
afterEach(cleanup);

/** A page with the field, the address as text, and a way to change the address from elsewhere. */
function Page({ question }: { question: string }) {
  const [q, setQ] = useState(question);
  return (
    <QueryClientProvider client={new QueryClient()}>
      <SearchField value={q} onChange={setQ} ref={null} />
      <output>{q}</output>
      <button onClick={() => setQ("heavy")}>elsewhere</button>
      <div data-index="0">
        <button data-strip>first face</button>
      </div>
    </QueryClientProvider>
  );
}
const open = (question = "") => {
  const client = userEvent.setup();
  render(<Page question={question} />);
  return { client, field: screen.getByRole<HTMLInputElement>("combobox") };
};
const address = () => screen.getByRole("status").textContent;
const chosen = () => screen.queryAllByRole("option").findIndex((o) => o.getAttribute("aria-selected") === "true");

test("what is typed reaches the address without the space at its end, which stays in the field", async () => {
  const { client, field } = open();
  await client.type(field, "round ");
  expect(address()).toBe("round");
  expect(field.value).toBe("round ");
});

test("one letter is too few to offer anything; arrows choose, and Tab takes", async () => {
  const { client, field } = open();
  await client.type(field, "s");
  expect(asked).toEqual([]);
  await client.type(field, "l");
  await screen.findByRole("listbox");
  await client.keyboard("{ArrowDown}{ArrowDown}{ArrowDown}");
  expect(chosen()).toBe(1);
  await client.keyboard("{ArrowUp}{Tab}");
  expect(address()).toBe("slab");
  expect(field.value).toBe("slab ");
  expect(screen.queryByRole("listbox")).toBeNull();
  expect(document.activeElement).toBe(field);
});

test("Escape closes what is offered, and Enter then goes to the wall", async () => {
  const { client, field } = open();
  await client.type(field, "sl");
  await screen.findByRole("listbox");
  await client.keyboard("{ArrowDown}{Escape}");
  expect(screen.queryByRole("listbox")).toBeNull();
  await client.keyboard("{Enter}");
  expect(document.activeElement?.textContent).toBe("first face");
  expect(address()).toBe("sl");
});

test("an address that changed elsewhere is followed", async () => {
  const { client, field } = open("slab");
  await client.click(screen.getByText("elsewhere"));
  expect(field.value).toBe("heavy");
});
