import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { signIn, violations } from "./helpers";

type Document = {
  title: string;
  workshop: string;
  foot: string;
  notes: { says: string }[];
  parts: {
    heading: string;
    facts: { name: string; says: string }[];
    lines: string[];
    table: { columns: { heading: string }[]; rows: { cells: string[] }[] } | null;
  }[];
};

const words = (d: Document) => [
  d.title,
  d.workshop,
  d.foot,
  ...d.notes.map((n) => n.says),
  ...d.parts.flatMap((p) => [p.heading, ...p.lines, ...p.facts.flatMap((f) => [f.name, f.says])]),
  ...d.parts.flatMap((p) => p.table?.rows.flatMap((r) => r.cells) ?? []),
];
const figures = (text: string) => (text.match(/\d+(?:\.\d+)?/g) ?? []).sort();

test("the record as PDF says the record's figures, and as a file of its own it opens without any network", async ({ page, browser, baseURL }) => {
  await signIn(page);
  const board: { jobId: string; vehicle: { plate: string } }[] = await (await page.request.get("/api/board")).json();
  const id = board.find((c) => c.vehicle.plate === "GNT 420")!.jobId;
  const document: Document = await (await page.request.get(`/api/jobs/${id}/record/document`)).json();
  const folder = mkdtempSync(join(tmpdir(), "pawl-record-"));

  // The page, PDF and file are made from one document.
  await page.goto(`/jobs/${id}/record`);
  await expect(page.getByRole("heading", { name: document.title })).toBeVisible();
  const shown = (await page.locator("article").innerText()).replace(/\s+/g, "");
  for (const says of words(document).filter((w) => w !== "Inside")) expect(shown).toContain(says.replace(/\s+/g, ""));
  expect(await violations(page)).toEqual([]);

  const address = `${baseURL}/jobs/${id}`;
  for (const paper of ["a4", "letter"]) {
    const file = join(folder, `${paper}.pdf`);
    writeFileSync(file, await (await page.request.get(`/api/jobs/${id}/record.pdf?paper=${paper}`)).body());
    // Poppler's reader, from Debian: neither wrote the file nor belongs to this project.
    const text = execFileSync("pdftotext", ["-layout", file, "-"]).toString();
    const pages = Number(/Pages:\s+(\d+)/.exec(execFileSync("pdfinfo", [file]).toString())![1]);
    const feet = Array.from({ length: pages }, (_, i) => `${document.title}, page ${i + 1} of ${pages}`);
    expect(figures(text.replaceAll(/\s+/g, " "))).toEqual(figures([...words(document), address, ...feet].join(" ")));
  }

  const html = join(folder, "record.html");
  writeFileSync(html, await (await page.request.get(`/api/jobs/${id}/record.html`)).body());
  const alone = await browser.newContext({ offline: true });
  const other = await alone.newPage();
  const asked: string[] = [];
  other.on("request", (r) => asked.push(r.url()));
  await other.goto(`file://${html}`);
  await expect(other.getByRole("heading", { name: document.title })).toBeVisible();
  expect(asked.filter((u) => !u.startsWith("data:"))).toEqual([`file://${html}`]);
  expect(await violations(other)).toEqual([]);
  await alone.close();
});
