// The words of the page, read from its sources: none that the glossary replaces, and every figure that can be typed by its word.
import { readdirSync, readFileSync } from "node:fs";

import ts from "typescript";
import { expect, test } from "vitest";

const GLOSSARY = readFileSync("../docs/glossary.md", "utf8");
const cells = (line: string) =>
  line
    .split("|")
    .slice(1, -1)
    .map((cell) => cell.trim());
const ROWS = GLOSSARY.split("\n").filter((line) => line.startsWith("|"));
const TERMS = new Set(ROWS.map(cells).flatMap((row) => (row.length === 7 ? [row[0] ?? ""] : [])));
const REPLACED = ROWS.map(cells).flatMap(([say, not, more]) =>
  not === undefined || more !== undefined || say === "say" || not.startsWith("---")
    ? []
    : not.split(", ").map((one) => [say, new RegExp(`\\b${one}\\b`, "i")] as const),
);

const SOURCES = readdirSync("src", { recursive: true, encoding: "utf8" }).filter(
  (name) => /\.tsx?$/.test(name) && !/\.test\.|schema\.d|limits\.ts/.test(name),
);

const parsed = (name: string) =>
  ts.createSourceFile(
    name,
    readFileSync(`src/${name}`, "utf8"),
    ts.ScriptTarget.Latest,
    true,
    ts.ScriptKind.TSX,
  );

function each(node: ts.Node, visit: (node: ts.Node) => void): void {
  visit(node);
  ts.forEachChild(node, (child) => each(child, visit));
}

/** Every text in a source that a person may read: what has a space in it. */
function texts(name: string): string[] {
  const all: string[] = [];
  each(parsed(name), (node) => {
    if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isTemplateHead(node) || ts.isTemplateTail(node))
      all.push(node.text);
    if (ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateMiddle(node)) all.push(node.text);
  });
  return all.filter((text) => text.trim().includes(" "));
}

test("no text of the page uses a word that the glossary replaces", () => {
  expect(REPLACED.length).toBeGreaterThan(20);
  const slips = SOURCES.flatMap((name) =>
    texts(name).flatMap((text) =>
      REPLACED.filter(([, not]) => not.test(text)).map(([say]) => `${name}: “${text.trim()}”, say ${say}`),
    ),
  );
  expect(slips).toEqual([]);
});

/** What is clear without a word of its own. */
const PLAIN = ["From the left wall", "From the back wall", "Height", "Distance from the eyes", "Budget"];

test("every figure of the steps that can be typed goes by a word of the glossary", () => {
  const steps = /^(things|you|shot|light)\//;
  const strange: string[] = [];
  for (const name of SOURCES.filter((one) => steps.test(one)))
    each(parsed(name), (node) => {
      if (!ts.isJsxSelfClosingElement(node) || !node.tagName.getText().endsWith("Box")) return;
      const attribute = (wanted: string) =>
        node.attributes.properties.flatMap((one) =>
          ts.isJsxAttribute(one) &&
          one.name.getText() === wanted &&
          one.initializer &&
          ts.isStringLiteral(one.initializer)
            ? [one.initializer.text]
            : [],
        )[0];
      const label = attribute("label");
      const word = attribute("term") ?? label?.split(",")[0];
      if (word !== undefined && !TERMS.has(word) && !PLAIN.includes(word)) strange.push(`${name}: ${word}`);
    });
  expect(strange).toEqual([]);
});
