// credits.txt: who made each face and under which terms, ready to be pasted.

type Credit = {
  name: string;
  designer: string | null;
  foundry: string | null;
  copyright: string | null;
  spdx: string | null;
  source: string;
  /** The sentence that asks for credit, where one does. */
  asksFor?: string;
};

export function writeCredits(project: string, credits: Credit[]): string {
  const blocks = credits.map((c) =>
    [
      c.name,
      c.designer && `  Designer: ${c.designer}`,
      c.foundry && `  Foundry: ${c.foundry}`,
      c.copyright && `  ${c.copyright}`,
      `  Licence: ${c.spdx ?? "not recognised, see the licence file"}`,
      c.asksFor && `  Credit is a condition: “${c.asksFor}”`,
      `  Source: ${c.source}`,
    ]
      .filter(Boolean)
      .join("\n"),
  );
  return `Typefaces used in “${project}”\n\n${blocks.join("\n\n")}\n\nThis list is a reading aid and not legal advice.\n`;
}
