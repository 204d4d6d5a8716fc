"use client";
// The state of Find as it stands in the address: a link shows the same wall, and back goes back.
import { useQueryStates } from "nuqs";
import { parsers, type Setting } from "./question";

export const useFindAddress = () => useQueryStates(parsers, { history: "replace", throttleMs: 120 });

/** Texts other than the brief's own, from the scenario, long enough to show a face at work. */
export const SETTING_TEXTS: Record<Exclude<Setting, "line" | "letters">, string> = {
  words: "Harbour Lantern Quay Mist Beacon",
  sentence: "The keeper trimmed the wick, and waited for the fog to lift.",
  paragraph:
    "The keeper trimmed the wick, and waited for the fog to lift. Twelve lamps stood along the quay; one tide would carry the boats past all of them. By dawn the brass was cold and the log held only weather.",
  alphabet: "ABCDEFGHIJKLMNOPQRSTUVWXYZ abcdefghijklmnopqrstuvwxyz",
  figures: "0123456789 04:52 3.8 m £12 & % + ? !",
};
