// npm run demo:pages
// Draws the two demo pages of Stacker 2 (demo/stacker-2-pages.pdf), a picture of the first as a phone would take it
// (demo/stacker-2-page-1.jpg), and what is on them (demo/stacker-2-pages.json), which tests compare with.
import { createWriteStream, writeFileSync } from "node:fs";
import PDFDocument from "pdfkit";
import sharp from "sharp";

const WIDTH = 842;
const HEIGHT = 595;
const out = (name) => new URL(`../../demo/${name}`, import.meta.url);

/** One page as a list of shapes; what it says is kept beside it. */
class Page {
  shapes = [];
  truth = { words: [], wires: [], boxes: [], stars: [] };
  line(...points) {
    this.shapes.push({ kind: "line", points });
  }
  box(x, y, width, height) {
    this.shapes.push({ kind: "box", x, y, width, height });
  }
  dot(x, y, radius = 2.4) {
    this.shapes.push({ kind: "dot", x, y, radius });
  }
  /** @param anchor "start", "middle" or "end"; y is the middle of the letters */
  text(text, x, y, { size = 7, anchor = "start" } = {}) {
    this.shapes.push({ kind: "text", text, x, y, size, anchor });
    this.truth.words.push({ text, x, y, anchor });
  }
  wire(from, to, colour, points, writeAt = 0) {
    this.line(...points);
    const [a, b] = [points[writeAt], points[writeAt + 1]];
    if (colour) this.text(colour, (a[0] + b[0]) / 2, (a[1] + b[1]) / 2 - 4.5, { size: 6, anchor: "middle" });
    this.truth.wires.push({ from, to, colour, points });
  }
  splice(id, x, y, [dx, dy] = [5, -6]) {
    this.dot(x, y);
    this.text(id, x + dx, y + dy, { size: 7 });
    this.truth.stars.push({ id, x, y });
  }
  ground(id, x, y) {
    this.line([x - 6, y], [x + 6, y]);
    this.line([x - 4, y + 2.5], [x + 4, y + 2.5]);
    this.line([x - 2, y + 5], [x + 2, y + 5]);
    this.text(id, x + 9, y + 2, { size: 7 });
    this.truth.stars.push({ id, x, y });
  }
  /** a part with three pins on its left side */
  sensor(id, name, x, y) {
    const pitch = 22;
    this.box(x, y, 118, pitch * 3);
    this.text(id, x + 62, y + 9, { size: 9 });
    this.text(name, x + 62, y + 21, { size: 6 });
    const pins = ["5 V reference", "sensor ground", "signal"].map((f, i) => {
      const at = [x, y + 11 + i * pitch];
      this.text(String(i + 1), x + 4, at[1], { size: 7 });
      this.text(f, x + 12, at[1], { size: 6 });
      return at;
    });
    this.truth.boxes.push({ id, pins: ["1", "2", "3"] });
    return pins;
  }
}

const SENSORS = [
  ["B1", "boom angle", "GY"],
  ["B2", "boom length", "VT"],
  ["B3", "lift pressure", "OG"],
  ["B4", "tilt pressure", "PK"],
  ["B5", "spreader height", "BU"],
  ["B6", "twistlock load", "GN"],
  ["B7", "steering angle", "GY"],
  ["B8", "steering pressure", "VT"],
  ["B9", "brake pressure", "OG"],
  ["B10", "park pressure", "PK"],
  ["B11", "axle load left", "BU"],
  ["B12", "axle load right", "GN"],
];

/** What goes on to the other page; on the second page also the battery, the fuse and the ground. */
function elsewhere(p, number, [refX, spliceRefY], [groundX, spliceLowY], cavities) {
  if (number === 1) {
    // to sheet 2
    p.wire(
      "S1",
      "P",
      "1.0 RD",
      [
        [refX, spliceRefY],
        [refX, 552],
        [700, 552],
      ],
      1,
    );
    p.text("P to sheet 2", 704, 552, { size: 7 });
    p.wire(
      "S2",
      "N",
      "1.0 BN",
      [
        [groundX, spliceLowY],
        [groundX, 562],
        [700, 562],
      ],
      1,
    );
    p.text("N to sheet 2", 704, 562, { size: 7 });
  } else {
    p.wire(
      "S3",
      "P",
      "1.0 RD",
      [
        [refX, spliceRefY],
        [refX, 552],
        [700, 552],
      ],
      1,
    );
    p.text("P to sheet 1", 704, 552, { size: 7 });
    p.wire(
      "S4",
      "N",
      "1.0 BN",
      [
        [groundX, spliceLowY],
        [groundX, 562],
        [700, 562],
      ],
      1,
    );
    p.text("N to sheet 1", 704, 562, { size: 7 });
    cavities.push("30", "31");
    p.text("30", 90, 463, { size: 7, anchor: "middle" });
    p.text("supply", 90, 454, { size: 6, anchor: "middle" });
    p.text("31", 150, 463, { size: 7, anchor: "middle" });
    p.text("ground", 150, 454, { size: 6, anchor: "middle" });
    p.wire("F1:in", "A1:30", "", [
      [90, 490],
      [90, 470],
    ]);
    p.text("1.5 RD/YE", 94, 480, { size: 6 });
    p.box(78, 490, 24, 24);
    p.text("F1", 84, 498, { size: 7 });
    p.text("10 A", 84, 507, { size: 5 });
    p.truth.boxes.push({ id: "F1", pins: ["in", "out"] });
    p.wire("BAT:+", "F1:out", "", [
      [90, 530],
      [90, 514],
    ]);
    p.text("2.5 RD", 94, 522, { size: 6 });
    p.box(70, 530, 40, 24);
    p.text("BAT", 76, 547, { size: 7 });
    p.text("+", 88, 536, { size: 7 });
    p.truth.boxes.push({ id: "BAT", pins: ["+"] });
    p.wire("G1", "A1:31", "", [
      [150, 505],
      [150, 470],
    ]);
    p.text("1.5 BK", 154, 488, { size: 6 });
    p.ground("G1", 150, 505);
  }
}

/** Six sensors on one module: reference and ground each through a splice, every signal by itself. */
function page(number) {
  const p = new Page();
  const first = (number - 1) * 6;
  p.box(14, 14, WIDTH - 28, HEIGHT - 28);
  p.text(`STACKER 2 · spreader and steering sensors · sheet ${number} of 2`, 26, 572, { size: 8 });
  p.text("Skerrow Deep workshop · drawn up by hand · edition 3", 600, 572, { size: 6 });
  const left = 60;
  p.box(left, 40, 120, number === 1 ? 500 : 430);
  p.text("A1", left + 12, 86, { size: 11 });
  p.text("spreader module", left + 12, 100, { size: 7 });
  const right = left + 120;
  const pin = (cavity, f, y) => {
    p.text(String(cavity), right - 4, y, { size: 7, anchor: "end" });
    p.text(f, right - 20, y, { size: 6, anchor: "end" });
    return [right, y];
  };
  const [s1, s2] = number === 1 ? ["S1", "S2"] : ["S3", "S4"];
  const cavities = [];
  const refX = 330;
  const groundX = 300;
  const refPin = number === 1 ? 1 : undefined;
  // sheet 2 takes its reference and ground from splices of sheet 1
  const ref = refPin ? pin(1, "5 V reference", 51) : undefined;
  const low = refPin ? pin(2, "sensor ground", 66) : undefined;
  const sensors = SENSORS.slice(first, first + 6).map(([id, name, colour], i) => {
    const y = 40 + i * 86;
    return { id, colour, pins: p.sensor(id, name, 560, y), signal: number * 10 + i };
  });
  const refs = sensors.map((s) => s.pins[0][1]);
  const lows = sensors.map((s) => s.pins[1][1]);
  const spliceRefY = refs[2];
  const spliceLowY = lows[3];
  // what all share runs down one column each, with the splice where the feed comes in
  for (const [id, x, rows, feedY, splice, colour, f] of [
    [s1, refX, refs, ref?.[1], spliceRefY, "RD", 1],
    [s2, groundX, lows, low?.[1], spliceLowY, "BN", 2],
  ]) {
    sensors.forEach((s, i) => {
      const y = rows[i];
      const points =
        y === splice
          ? [
              [560, y],
              [x, y],
            ]
          : [
              [560, y],
              [x + 12 + i * 3.2 + (f === 2 ? 40 : 70), y],
              [x + 12 + i * 3.2 + (f === 2 ? 40 : 70), splice + (i - 2.5) * 2.4],
              [x, splice],
            ];
      p.wire(`${s.id}:${f}`, id, `0.5 ${colour}/WH`, points);
    });
    p.splice(id, x, splice, [-14, -8]);
    if (feedY !== undefined) {
      p.wire(
        id,
        `A1:${f}`,
        `1.0 ${colour}`,
        [
          [x, splice],
          [x, feedY],
          [right, feedY],
        ],
        1,
      );
      cavities.push(String(f));
    }
  }
  sensors.forEach((s, i) => {
    const y = 120 + i * 52;
    const at = pin(s.signal, "signal", y);
    cavities.push(String(s.signal));
    const turn = 208 + i * 14;
    p.wire(`${s.id}:3`, `A1:${s.signal}`, `0.5 ${s.colour}`, [s.pins[2], [turn, s.pins[2][1]], [turn, y], at]);
  });
  elsewhere(p, number, [refX, spliceRefY], [groundX, spliceLowY], cavities);
  p.truth.boxes.push({ id: "A1", pins: cavities });
  return p;
}

const pages = [page(1), page(2)];
const pdf = new PDFDocument({ autoFirstPage: false, info: { Title: "Stacker 2, two pages" }, compress: true });
pdf.info.CreationDate = new Date(Date.UTC(2026, 0, 1));
const file = createWriteStream(out("stacker-2-pages.pdf"));
pdf.pipe(file);
for (const p of pages) {
  pdf.addPage({ size: [WIDTH, HEIGHT], margin: 0 });
  pdf.lineWidth(0.7);
  for (const s of p.shapes) {
    if (s.kind === "line") {
      s.points.forEach(([x, y], i) => (i ? pdf.lineTo(x, y) : pdf.moveTo(x, y)));
      pdf.stroke();
    } else if (s.kind === "box") pdf.rect(s.x, s.y, s.width, s.height).stroke();
    else if (s.kind === "dot") pdf.circle(s.x, s.y, s.radius).fill("black");
    else {
      pdf.font("Helvetica").fontSize(s.size);
      const width = pdf.widthOfString(s.text);
      const x = s.anchor === "start" ? s.x : s.anchor === "end" ? s.x - width : s.x - width / 2;
      pdf.fillColor("black").text(s.text, x, s.y - s.size * 0.36, { lineBreak: false, baseline: "top" });
    }
  }
}
pdf.end();
writeFileSync(
  out("stacker-2-pages.json"),
  `${JSON.stringify({ width: WIDTH, height: HEIGHT, pages: pages.map((p) => p.truth) })}\n`,
);

// the first page as a phone sees it: turned, in a corner's shade, with the noise of its sensor
const SCALE = 3;
const drawn = pages[0].shapes.map((s) => {
  if (s.kind === "line")
    return `<polyline points="${s.points.map((p) => p.join(",")).join(" ")}" fill="none" stroke="#222"/>`;
  if (s.kind === "box")
    return `<rect x="${s.x}" y="${s.y}" width="${s.width}" height="${s.height}" fill="none" stroke="#222"/>`;
  if (s.kind === "dot") return `<circle cx="${s.x}" cy="${s.y}" r="${s.radius}" fill="#222"/>`;
  const letters = `font-size="${s.size}" text-anchor="${s.anchor}" font-family="Liberation Sans, Arial, sans-serif"`;
  return `<text x="${s.x}" y="${s.y + s.size * 0.36}" ${letters} fill="#222">${s.text}</text>`;
});
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH * SCALE}" height="${HEIGHT * SCALE}"
viewBox="0 0 ${WIDTH} ${HEIGHT}"><rect width="100%" height="100%" fill="#f3efe4"/>${drawn.join("")}</svg>`;
const [w, h] = [WIDTH * SCALE + 360, HEIGHT * SCALE + 300];
const shade = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}">
<defs><radialGradient id="g" cx="30%" cy="25%" r="95%">
<stop offset="0" stop-color="#fff"/>
<stop offset="1" stop-color="#6b665c"/></radialGradient></defs><rect width="100%" height="100%" fill="url(#g)"/></svg>`;
const turned = await sharp(Buffer.from(svg)).png().rotate(4, { background: "#4a4038" }).toBuffer();
const onBench = await sharp(turned).resize(w, h, { fit: "contain", background: "#4a4038" }).png().toBuffer();
let seed = 20261201;
const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 2 ** 32;
const noise = Buffer.from(Uint8Array.from({ length: w * h }, () => 128 + (random() + random() - 1) * 26));
const shaded = await sharp(onBench)
  .composite([{ input: Buffer.from(shade), blend: "multiply" }])
  .removeAlpha()
  .png()
  .toBuffer();
await sharp(shaded)
  .composite([
    {
      input: await sharp(noise, { raw: { width: w, height: h, channels: 1 } })
        .png()
        .toBuffer(),
      blend: "soft-light",
    },
  ])
  .jpeg({ quality: 72 })
  .toFile(out("stacker-2-page-1.jpg").pathname);
