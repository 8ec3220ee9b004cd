import { buildChart, chartRow, connectorRow, cutText, emptyChart } from "../../src/index.js";

test("a text is cut at its units, but never through a sign", () => {
  expect(cutText("abc", 5)).toBe("abc");
  expect(cutText("abc", 2)).toBe("ab");
  // 🔧 is two UTF-16 units, U+D83D U+DD27 (The Unicode Standard, table 3-5)
  expect(cutText("a🔧b", 2)).toBe("a");
  expect(cutText("a🔧b", 3)).toBe("a🔧");
  expect(cutText("", 3)).toBe("");
});

test("a chart full of emoji makes a wiring, and issues, without half a sign", () => {
  const cell = "🔧".repeat(200);
  for (const text of [cell, `a${cell}`]) {
    const built = buildChart({
      ...emptyChart("", 12),
      rows: [chartRow({ connector: "B1", cavity: "1", colour: text, function: text, goesTo: "A1:4", source: text })],
      connectors: [connectorRow({ id: "B1", name: text, place: text, minutes: text, cautions: text })],
    });
    expect(built.issues.length).toBeGreaterThan(0);
    expect(JSON.stringify([built.wiring, built.issues])).not.toMatch(/\\ud[89ab]/);
    expect(built.wiring.connectors.find((c) => c.id === "B1")?.name).toMatch(/^a?(🔧)+$/u);
  }
});
