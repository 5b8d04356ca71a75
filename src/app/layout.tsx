import type { Metadata } from "next";
import localFont from "next/font/local";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import "./globals.css";
import "@xyflow/react/dist/base.css";

const text = localFont({
  src: [
    {
      path: "../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2",
      weight: "200 800",
      style: "normal",
    },
  ],
  variable: "--font-text",
  display: "swap",
});
const figures = localFont({
  src: [
    {
      path: "../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2",
      weight: "200 800",
      style: "normal",
    },
  ],
  variable: "--font-figures",
  display: "swap",
});

export const metadata: Metadata = {
  title: "Dianome",
  description: "Plans, checks and proves the network of a site.",
};

/**
 * The ground that was chosen stands in a cookie, so that the first paint has it already; without one the
 * system's holds.
 */
export default async function RootLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get("ground")?.value;
  const ground = chosen === "sheet" || chosen === "bench" ? chosen : undefined;
  return (
    <html lang="en" className={`${text.variable} ${figures.variable}`} data-ground={ground}>
      <body>{children}</body>
    </html>
  );
}
