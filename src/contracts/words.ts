// The words people read for our codes, one place for interface, sheets and archives.
import type { Kind, Treatment, Use, Verdict } from "./traits";

export const VERDICT_WORDS: Record<Verdict, string> = {
  cleared: "Cleared",
  "cleared-with-credit": "Cleared with credit",
  "buy-first": "Buy first",
  "ask-maker": "Ask the maker",
  "not-for-this-use": "Not for this use",
  unread: "Unread",
};

export const USE_WORDS: Record<Use, string> = {
  private: "private use",
  "client-print": "print",
  "goods-for-sale": "goods for sale",
  web: "web",
  video: "video",
  app: "app",
  cutting: "cutting",
  logo: "logo",
};

export const KIND_WORDS: Record<Kind, string> = {
  sans: "Sans serif",
  serif: "Serif",
  slab: "Slab serif",
  script: "Script",
  handwritten: "Handwritten",
  blackletter: "Blackletter",
  monospaced: "Monospaced",
  display: "Display",
  picture: "Picture font",
};

export const TREATMENT_WORDS: Record<Treatment, string> = {
  stencil: "Stencil",
  inline: "Inline",
  outline: "Outline",
  shadow: "Shadow",
  rough: "Rough",
  pixel: "Pixel",
  dotted: "Dotted",
  drips: "Drips",
  swash: "Swashes",
  rounded: "Rounded",
  layered: "Layered",
};
