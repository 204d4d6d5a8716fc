// SQL on faces shown to clients, and on their answers.
import type { BriefId, StyleId } from "@/contracts/ids";
import type { ShareAnswer, ShareId } from "@/contracts/share";
import type { Db } from "../db/open";

/** A face as it was kept when it was shared. */
export type SharedFace = { styleId: StyleId; location: Record<string, number>; features: Record<string, number> };
export type StoredShare = {
  shareId: ShareId;
  briefId: BriefId;
  token: string;
  faces: SharedFace[];
  mayComment: boolean;
  createdAt: string;
  expiresAt: string;
  endedAt: string | null;
};

type Row = Omit<StoredShare, "faces" | "mayComment"> & { kept: string; mayComment: number };
const SELECT = `SELECT share_id AS shareId, brief_id AS briefId, token, kept, may_comment AS mayComment, created_at AS createdAt,
  expires_at AS expiresAt, ended_at AS endedAt FROM shares`;
const toShare = ({ kept, mayComment, ...row }: Row): StoredShare => ({
  ...row,
  faces: JSON.parse(kept) as SharedFace[],
  mayComment: mayComment === 1,
});
const one = (row: Row | undefined) => (row ? toShare(row) : null);

export const findShare = (db: Db, shareId: string): StoredShare | null =>
  one(db.prepare<[string], Row>(`${SELECT} WHERE share_id = ?`).get(shareId));

export const findShareByToken = (db: Db, token: string): StoredShare | null =>
  one(db.prepare<[string], Row>(`${SELECT} WHERE token = ?`).get(token));

/** The last first. */
export const listShares = (db: Db, briefId: string): StoredShare[] =>
  db
    .prepare<[string], Row>(`${SELECT} WHERE brief_id = ? ORDER BY created_at DESC, share_id LIMIT 100`)
    .all(briefId)
    .map(toShare);

export const insertShare = (db: Db, s: StoredShare) =>
  db
    .prepare(
      "INSERT INTO shares (share_id, brief_id, token, kept, may_comment, created_at, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?)",
    )
    .run(s.shareId, s.briefId, s.token, JSON.stringify(s.faces), Number(s.mayComment), s.createdAt, s.expiresAt);

/** @returns whether it was open by hand until now. */
export const setShareEnded = (db: Db, shareId: string, at: string): boolean =>
  db.prepare("UPDATE shares SET ended_at = ? WHERE share_id = ? AND ended_at IS NULL").run(at, shareId).changes > 0;

type AnswerRow = { name: string; styleId: StyleId; chosen: number | null; comment: string | null; at: string };
export const listAnswers = (db: Db, shareId: string): ShareAnswer[] =>
  db
    .prepare<[string], AnswerRow>(
      "SELECT name, style_id AS styleId, chosen, comment, at FROM share_answers WHERE share_id = ? ORDER BY answer_id",
    )
    .all(shareId)
    .map(({ chosen, comment, ...row }) => ({
      ...row,
      ...(chosen !== null && { chosen: chosen === 1 }),
      ...(comment !== null && { comment }),
    }));

export const countAnswers = (db: Db, shareId: string): number =>
  db.prepare<[string], { n: number }>("SELECT COUNT(*) AS n FROM share_answers WHERE share_id = ?").get(shareId)!.n;

export const insertAnswer = (db: Db, shareId: string, a: ShareAnswer) =>
  db
    .prepare("INSERT INTO share_answers (share_id, name, style_id, chosen, comment, at) VALUES (?, ?, ?, ?, ?, ?)")
    .run(shareId, a.name, a.styleId, a.chosen === undefined ? null : Number(a.chosen), a.comment ?? null, a.at);
