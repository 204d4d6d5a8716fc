// In SQL: what was said here of words.
import type { ThemeCorrection, ThemeLooks } from "@/contracts/themes";
import type { Db } from "../db/open";

type Row = { phrase: string; looks: string; changedAt: string };
const toCorrection = (row: Row): ThemeCorrection => ({ ...row, looks: JSON.parse(row.looks) as ThemeLooks });
const SELECT = "SELECT phrase, looks, changed_at AS changedAt FROM theme_corrections";

export const listThemeCorrections = (db: Db): ThemeCorrection[] =>
  db.prepare<[], Row>(`${SELECT} ORDER BY phrase`).all().map(toCorrection);
export const findThemeCorrection = (db: Db, phrase: string): ThemeCorrection | null => {
  const row = db.prepare<[string], Row>(`${SELECT} WHERE phrase = ?`).get(phrase);
  return row ? toCorrection(row) : null;
};
export const putThemeCorrection = (db: Db, { phrase, looks, changedAt }: ThemeCorrection) =>
  db
    .prepare(
      "INSERT INTO theme_corrections VALUES (?, ?, ?) ON CONFLICT(phrase) DO UPDATE SET looks = excluded.looks, changed_at = excluded.changed_at",
    )
    .run(phrase, JSON.stringify(looks), changedAt);
export const removeThemeCorrection = (db: Db, phrase: string): boolean =>
  db.prepare("DELETE FROM theme_corrections WHERE phrase = ?").run(phrase).changes > 0;
/** Differs after each change of any of them. */
export const themesState = (db: Db): string =>
  db
    .prepare<[], { state: string }>(
      "SELECT count(*) || ' ' || coalesce(max(changed_at), '') AS state FROM theme_corrections",
    )
    .get()!.state;
