import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { isOwnHost } from "./api/respond";
import { Providers } from "@/ui/bench/Providers";
import "./globals.css";

export const metadata: Metadata = { title: "Fond Quarry", description: "Find, check, compare and hand over typefaces" };

// Before anything is painted: the theme that was chosen, else the system's.
const THEME = `(()=>{let t;try{t=localStorage.getItem("theme")}catch{}if(!t)t=matchMedia("(prefers-color-scheme: dark)").matches?"night":"day";document.documentElement.dataset.theme=t})()`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const own = isOwnHost((await headers()).get("host"));
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body>{own ? <Providers>{children}</Providers> : <p>This host name is not served here.</p>}</body>
    </html>
  );
}
