/** @jest-environment ./test/environments/node.mjs */
import { codesIn } from "@/features/case/scan/droppedFile";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const bytes = (text: string) => {
  const data = Buffer.from(text);
  return data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength) as ArrayBuffer;
};
const taken = (text: string, name = "scan.txt") => codesIn(bytes(text), name, wiring);
const refusal = (code: string, params: object = {}) => ({ issue: { code, path: [], params } });

test("a list of codes is taken as it stands, from any tool", () => {
  const list = "P0642 active\nP0237 stored\n";
  expect(taken(list)).toEqual({ text: list });
  expect(taken("Module;Code;Status\nA1;P0522;active\n", "scan.csv")).toMatchObject({ text: /P0522/ });
});

test.each([
  ["an empty file", "", "a.txt", refusal("file.empty")],
  ["words without a code", "all is well\n", "note.txt", refusal("scan.no-code", { text: "note.txt" })],
  ["a table without a code", "a,b\n1,2\n", "a.csv", refusal("scan.no-code", { text: "a.csv" })],
  ["a PDF that names codes", "%PDF-1.7 P0642", "a.pdf", refusal("file.other-sort", { sort: "pdf" })],
  ["a web page", "<!doctype html><p>P0642", "a.html", refusal("file.other-sort", { sort: "page" })],
  ["another job", JSON.stringify(demoCase()), "job.json", refusal("file.other-sort", { sort: "case" })],
])("%s is refused, and says what it is", (_, text, name, why) => expect(taken(text, name)).toEqual(why));

test("a file that is far too large is refused before it is read", () => {
  const large = new ArrayBuffer(2_000_001);
  expect(codesIn(large, "large.txt", wiring)).toEqual(
    refusal("file.too-large", { characters: 2_000_001, limit: 2_000_000 }),
  );
});
