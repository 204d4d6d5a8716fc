// The connector of a library, by its kind. A new kind of source is a file beside this one and a line in the table.
import type { LibraryRow } from "../queries/libraries";
import type { Connector } from "./connector";
import { connectFolder } from "./folder";
import { connectOpds } from "./opds";

const KINDS: Record<string, (address: string) => Connector> = { opds: connectOpds, folder: connectFolder };

/** Null for libraries that are not reached through a connector: one's own fonts, the packages that came along. */
export const connectorOf = ({ kind, url }: Pick<LibraryRow, "kind" | "url">): Connector | null =>
  url ? (KINDS[kind]?.(url) ?? null) : null;
