"use client";
// The find field: words as people say them, with what could follow offered below. Arrow keys choose, Tab takes, Enter goes to the wall.
import { useQuery } from "@tanstack/react-query";
import { useId, useReducer } from "react";
import { queryOf } from "../parts/client";

const ASK_FROM = 2;

type Props = { value: string; onChange: (q: string) => void; ref: React.Ref<HTMLInputElement> };

export function SearchField({ value, onChange, ref }: Props) {
  const listId = useId();
  const { typed, list, chosen, choose, take, type, close, onKey } = useTyping(value, onChange);
  return (
    <div className="relative min-w-0 flex-1">
      <input
        ref={ref}
        type="search"
        role="combobox"
        aria-label="Find by name, kind or shape"
        aria-expanded={list.length > 0}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={chosen >= 0 ? `${listId}-${chosen}` : undefined}
        placeholder="sturdy slab with an ampersand, to sell with"
        autoComplete="off"
        value={typed}
        maxLength={200}
        onChange={(e) => type(e.target.value)}
        onBlur={close}
        onKeyDown={onKey}
        className="w-full bg-transparent text-[18px] leading-6 outline-none placeholder:text-basalt/70"
      />
      {list.length > 0 && (
        <ul
          id={listId}
          role="listbox"
          aria-label="Suggestions"
          className="absolute top-full left-0 z-40 mt-2 w-96 max-w-full rounded-sm border border-rule bg-chalk py-1 shadow-lg"
        >
          {list.map((s, i) => (
            <li
              key={s.becomes}
              id={`${listId}-${i}`}
              role="option"
              aria-selected={i === chosen}
              // Before the field loses focus.
              onMouseDown={(e) => {
                e.preventDefault();
                take(i);
              }}
              onMouseEnter={() => choose(i)}
              className={`flex cursor-pointer items-baseline justify-between px-3 py-1 ${i === chosen ? "bg-limestone" : ""}`}
            >
              <span className={s.kind === "word" ? "" : "font-semibold"}>{s.label}</span>
              <span className="text-[12px] text-basalt">{s.note}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** @property given - the question of the address when the field last followed it. @property chosen - the suggestion that the arrows have come to; −1: none. */
type Typing = { typed: string; given: string; isOpen: boolean; chosen: number };
type TypingAction =
  | { type: "followed"; value: string }
  | { type: "typed"; text: string; isOpen: boolean }
  | { type: "chosen"; at: number }
  | { type: "closed" };

function typingReducer(state: Typing, action: TypingAction): Typing {
  switch (action.type) {
    case "followed": {
      // What is being typed reaches the address without the space at its end.
      const isOwn = action.value === state.typed.trim();
      return { ...state, given: action.value, typed: isOwn ? state.typed : action.value };
    }
    case "typed":
      return { ...state, typed: action.text, isOpen: action.isOpen, chosen: -1 };
    case "chosen":
      return { ...state, chosen: action.at };
    case "closed":
      return { ...state, isOpen: false, chosen: -1 };
  }
}

/** What is typed, what could follow, and which of it the arrows have come to. */
function useTyping(value: string, onChange: (q: string) => void) {
  const [state, dispatch] = useReducer(typingReducer, { typed: value, given: value, isOpen: false, chosen: -1 });
  // The address changed elsewhere (back, a word removed): the field follows.
  if (state.given !== value) dispatch({ type: "followed", value });
  const { typed, isOpen, chosen } = state;
  const asked = typed.trimStart();
  const isAsked = isOpen && asked.length >= ASK_FROM;
  const suggestions = useQuery({
    ...queryOf("suggest", { query: { q: asked } }),
    enabled: isAsked,
    placeholderData: (before) => before,
    staleTime: 30_000,
  });
  const list = isAsked ? (suggestions.data?.suggestions ?? []) : [];
  const put = (text: string, isListOpen: boolean) => {
    dispatch({ type: "typed", text, isOpen: isListOpen });
    onChange(text.trim());
  };
  const take = (at: number) => {
    const s = list[at];
    if (s) put(`${s.becomes} `, false);
  };
  const choose = (at: number) => dispatch({ type: "chosen", at });
  const close = () => dispatch({ type: "closed" });
  const toWall = () => {
    close();
    document.querySelector<HTMLElement>("[data-index='0'] [data-strip]")?.focus();
  };
  const onKey = (event: React.KeyboardEvent<HTMLInputElement>) => {
    const { key } = event;
    const hasList = list.length > 0;
    if (key === "Escape") {
      if (hasList) close();
      else event.currentTarget.blur();
    } else if ((key === "Tab" && hasList && chosen >= 0) || (key === "Enter" && chosen >= 0)) take(chosen);
    else if (key === "Enter" || (key === "ArrowDown" && !hasList)) toWall();
    else if (key === "ArrowDown") choose(Math.min(list.length - 1, chosen + 1));
    else if (key === "ArrowUp" && hasList) choose(Math.max(-1, chosen - 1));
    else return;
    event.preventDefault();
  };
  return { typed, list, chosen, choose, take, type: (text: string) => put(text, true), close, onKey };
}

/** The sentence without one of its phrases; joining words that are left alone at an end go too. */
export function removeWords(q: string, from: string): string {
  const escaped = from.replace(/[.*+?^${}()|[\]\\]/g, "\\$&").replace(/ /g, "[\\s,;]+");
  return q
    .replace(new RegExp(`(^|[\\s,;])${escaped}(?=$|[\\s,;])`, "i"), "$1")
    .replace(/^[\s,;]*(?:(?:and|or|with|an?|the|but)\b[\s,;]*)*$/i, "")
    .replace(/\s+/g, " ")
    .trim();
}
