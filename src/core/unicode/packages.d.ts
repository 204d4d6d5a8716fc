// Types of the data packages, as far as they are used: they ship none.
declare module "unicode-name" {
  /** Name with its corrections applied, or an alias for a control; undefined for what has neither. */
  export function unicodeReadableName(char: string | number): string | undefined;
}
declare module "unicode-block" {
  export function unicodeBlock(char: string | number): string | undefined;
  export function listUnicodeBlocks(): Set<string>;
  export function unicodeBlockInfo(name: string): { block: string; first: number; last: number } | undefined;
}
declare module "unicode-script" {
  /** ISO 15924 code, e.g. "Latn"; "Zyyy" for common characters, "Zinh" for inherited, "Zzzz" for unknown. */
  export function unicodeScriptCode(char: string | number): string | undefined;
}
