// Small mistakes a programmer could make, found in a source file by its syntax tree.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import prand from "pure-rand";

const K = ts.SyntaxKind;
const SWAPPED = new Map([
  [K.LessThanToken, "<="],
  [K.LessThanEqualsToken, "<"],
  [K.GreaterThanToken, ">="],
  [K.GreaterThanEqualsToken, ">"],
  [K.EqualsEqualsEqualsToken, "!=="],
  [K.ExclamationEqualsEqualsToken, "==="],
  [K.AmpersandAmpersandToken, "||"],
  [K.BarBarToken, "&&"],
  [K.PlusToken, "-"],
  [K.MinusToken, "+"],
  [K.AsteriskToken, "/"],
  [K.SlashToken, "*"],
]);
const METHODS = new Map([
  ["some", "every"],
  ["every", "some"],
  ["max", "min"],
  ["min", "max"],
]);

/** Every mutation of a file. @returns {{file, start, end, after, before, kind, line}[]} */
export function mutationsOf(file) {
  const text = readFileSync(file, "utf8");
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found = [];
  const textOf = (node) => node.getText(source);
  /** @param node what is replaced @param shown the part of it that changes */
  const add = (node, full, kind, shown = node, after = full) => {
    const { line } = source.getLineAndCharacterOfPosition(shown.getStart(source));
    const [start, end] = [node.getStart(source), node.end];
    found.push({ file, line: line + 1, kind, start, end, full, before: brief(textOf(shown)), after: brief(after) });
  };
  const visit = (node) => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const { left, operatorToken: operator, right } = node;
      const to = SWAPPED.get(operator.kind);
      const isText = [left, right].some((x) => ts.isStringLiteralLike(x) || ts.isTemplateExpression(x));
      if (to && !(isText && to === "-")) add(node, `${textOf(left)} ${to} ${textOf(right)}`, "operator", operator, to);
    } else if (ts.isIfStatement(node)) add(node.expression, `!(${textOf(node.expression)})`, "condition");
    else if (ts.isConditionalExpression(node))
      add(node, `(${textOf(node.condition)}) ? (${textOf(node.whenFalse)}) : (${textOf(node.whenTrue)})`, "branches");
    else if (node.kind === K.TrueKeyword) add(node, "false", "boolean");
    else if (node.kind === K.FalseKeyword) add(node, "true", "boolean");
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) add(node, ";", "removed");
    else if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression)) {
      const { expression: on, name } = node.expression;
      const to = METHODS.get(name.text);
      if (to) add(node, `${textOf(on)}.${to}${text.slice(name.end, node.end)}`, "method", name, to);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const brief = (text) => text.replace(/\s+/g, " ").slice(0, 80);

/** A file's text with one mutation made. */
export function mutated({ file, start, end, full }) {
  const text = readFileSync(file, "utf8");
  return text.slice(0, start) + full + text.slice(end);
}

/** A file's text in which every place of a mutation calls `hit(number)` before it is evaluated. */
export function marked(file, mutations, hit) {
  const text = readFileSync(file, "utf8");
  const inserted = mutations
    .filter((m) => m.file === file)
    .flatMap(({ start, end, number }) => {
      const last = text[end - 1] === ";" ? end - 1 : end;
      // of two that start together the longer one is outside, so is it of two that end together
      return [
        { at: start, order: -end, put: `(${hit}(${number}), (` },
        { at: last, order: -start - text.length, put: "))" },
      ];
    })
    .sort((a, b) => a.at - b.at || a.order - b.order);
  let done = 0;
  let out = "";
  for (const { at, put } of inserted) {
    out += text.slice(done, at) + put;
    done = at;
  }
  return out + text.slice(done);
}

/** So many mutations at random, spread evenly over the folders. Same seed, same source, same mutations. */
export function pickMutations(folders, count, seed) {
  const random = prand.xoroshiro128plus(seed);
  const lists = folders.map((folder) => filesIn(folder).flatMap(mutationsOf));
  return Array.from({ length: count }, (_, i) => lists[i % lists.length]).map((list) => {
    const at = prand.unsafeUniformIntDistribution(0, list.length - 1, random);
    return list.splice(at, 1)[0];
  });
}
const filesIn = (folder) =>
  readdirSync(folder, { recursive: true })
    .filter((f) => /\.tsx?$/.test(f))
    .sort()
    .map((f) => join(folder, f));
