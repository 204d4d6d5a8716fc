import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { sentenceOf } from "@/contracts/errors";
import { bootFault } from "@/server/db/bootFault";
import { Providers } from "@/ui/bench/Providers";
import "./globals.css";

export const metadata: Metadata = { title: "Fond Quarry", description: "Find, check, compare and hand over typefaces" };

// Before anything is painted: the theme that was chosen, else the system's.
const THEME = `(()=>{let t;try{t=localStorage.getItem("theme")}catch{}if(!t)t=matchMedia("(prefers-color-scheme: dark)").matches?"night":"day";document.documentElement.dataset.theme=t})()`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const fault = bootFault();
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body>
        <Providers>{fault ? <DataFault says={sentenceOf(fault)} /> : children}</Providers>
      </body>
    </html>
  );
}

/** The data folder cannot be used: what is wrong, and what to do. The server looks again by itself. */
function DataFault({ says }: { says: string }) {
  return (
    <main className="mx-auto mt-[18vh] w-[520px]">
      <h1 className="text-[22px] font-bold">Fond Quarry cannot open its data</h1>
      <p className="mt-2">{says}</p>
      <p className="mt-4 text-basalt">It looks again every few seconds. Reload this page when the cause is gone.</p>
    </main>
  );
}
