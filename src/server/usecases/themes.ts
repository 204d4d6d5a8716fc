// What is said here of words: listed, changed, forgotten. Finding reads it with the next question.
import type { ThemeCorrection, ThemePut } from "@/contracts/themes";
import { lookDegrees } from "@/core/theme/looks";
import { leanTowards, readTheme } from "@/core/theme/readTheme";
import type { Db } from "../db/open";
import {
  findThemeCorrection,
  listThemeCorrections,
  putThemeCorrection,
  removeThemeCorrection,
} from "../queries/themes";
import { getRows } from "./findings";
import { getWordMeanings } from "./wordMeanings";

export const listThemes = (db: Db): ThemeCorrection[] => listThemeCorrections(db);

const LONGEST = 100;

/** @returns null when the face is unknown, or the phrase is none that the find field can hold. */
export function correctTheme(db: Db, phrase: string, put: ThemePut): ThemeCorrection | null {
  if (!phrase.trim() || phrase.length > LONGEST) return null;
  const before = findThemeCorrection(db, phrase)?.looks;
  const next = (looks: ThemeCorrection["looks"]): ThemeCorrection => {
    const correction = { phrase, looks, changedAt: new Date().toISOString() };
    putThemeCorrection(db, correction);
    return correction;
  };
  if ("looks" in put) return next(put.looks);
  const row = getRows(db).findRow(put.like);
  const words = getWordMeanings();
  if (!row || !words) return null;
  const read = readTheme(phrase.split(" "), words, before);
  return next({ ...before, ...(read && leanTowards(read.weights, lookDegrees(row))) });
}

export const forgetTheme = (db: Db, phrase: string): boolean => removeThemeCorrection(db, phrase);
