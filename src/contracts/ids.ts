// Identifiers of the things we keep. Branded, so that a family's id cannot be passed where a style's is meant.
import { z } from "zod";

export const StyleId = z
  .string()
  .regex(/^s_[a-z0-9]{8,32}$/)
  .brand<"StyleId">();
export type StyleId = z.infer<typeof StyleId>;
export const FamilyId = z
  .string()
  .regex(/^f_[a-z0-9-]{1,80}$/)
  .brand<"FamilyId">();
export type FamilyId = z.infer<typeof FamilyId>;
export const BriefId = z
  .string()
  .regex(/^b_[a-z0-9-]{1,60}$/)
  .brand<"BriefId">();
export type BriefId = z.infer<typeof BriefId>;
export const KeptId = z
  .string()
  .regex(/^k_[a-z0-9]{8,32}(?:-[a-z0-9]{1,12})?$/)
  .brand<"KeptId">();
export type KeptId = z.infer<typeof KeptId>;
export const JobId = z
  .string()
  .regex(/^j_[a-z0-9]{8,32}$/)
  .brand<"JobId">();
export type JobId = z.infer<typeof JobId>;
export const ImportId = z
  .string()
  .regex(/^i_[a-z0-9]{8,32}$/)
  .brand<"ImportId">();
export type ImportId = z.infer<typeof ImportId>;
export const LibraryId = z
  .string()
  .regex(/^[a-z0-9-]{1,40}$/)
  .brand<"LibraryId">();
export type LibraryId = z.infer<typeof LibraryId>;

/** Of a block of a lettering, within its document. */
export const BlockId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
