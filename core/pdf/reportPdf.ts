import { readerLanguage } from "../words/language.js";
import PDFDocument from "pdfkit";
import type { Block, Report } from "../words/index.js";

/** Two fonts that go into the file, as TrueType, OpenType or WOFF. */
export interface PdfFonts {
  readonly plain: Uint8Array;
  readonly strong: Uint8Array;
}
/** Where the fonts of a report are, as names of modules. */
export const PDF_FONTS = {
  plain: "@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff",
  strong: "@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff",
} as const;
const INK = "#23241f";
const MUTED = "#5c5d54";
const RUST = "#a33b1b";
const LINE = "#ddd9cc";
const MARGIN = 54;
const BODY_PT = 10.5;
const PHOTO_PT = 220;

/**
 * A report as PDF: text that can be selected, headings and paragraphs tagged, fonts inside. For Node.js only.
 * @param photo JPEG or PNG of a name; a picture that cannot be read is left out
 */
export function reportPdf(
  report: Report,
  fonts: PdfFonts,
  photo?: (id: string) => Uint8Array | undefined,
): Promise<Uint8Array> {
  return new PdfWriter(report, fonts, photo).write();
}

class PdfWriter {
  private readonly doc: PDFKit.PDFDocument;
  private readonly root: PDFKit.PDFStructureElement;

  constructor(
    private readonly report: Report,
    fonts: PdfFonts,
    private readonly photo: ((id: string) => Uint8Array | undefined) | undefined,
  ) {
    this.doc = new PDFDocument({
      size: "A4",
      margin: MARGIN,
      font: Buffer.from(fonts.plain) as unknown as string,
      pdfVersion: "1.7",
      lang: readerLanguage(),
      tagged: true,
      displayTitle: true,
      bufferPages: true,
      info: { Title: report.title, Creator: "radicula" },
    });
    this.doc.registerFont("plain", Buffer.from(fonts.plain));
    this.doc.registerFont("strong", Buffer.from(fonts.strong));
    this.root = this.doc.struct("Document");
    this.doc.addStructure(this.root);
  }

  write(): Promise<Uint8Array> {
    const { doc, report } = this;
    const parts: Uint8Array[] = [];
    const whole = new Promise<Uint8Array>((resolve, reject) => {
      doc.on("data", (part: Uint8Array) => parts.push(part));
      doc.on("end", () => resolve(Buffer.concat(parts)));
      doc.on("error", reject);
    });
    report.letterhead.forEach((l, i) => this.text("P", l, { strong: i === 0, colour: i === 0 ? INK : MUTED }));
    this.text("H1", report.title, { size: 19, strong: true, before: report.letterhead.length ? 14 : 0 });
    this.facts(report.facts);
    for (const s of report.sections) {
      this.text("H2", s.heading, { size: 13, strong: true, before: 12, keep: 60 });
      for (const b of s.blocks) this.block(b);
    }
    this.text("P", report.foot, { size: 8.5, colour: MUTED, before: 16 });
    this.root.end();
    this.pageNumbers();
    doc.end();
    return whole;
  }

  private get width(): number {
    return this.doc.page.width - 2 * MARGIN;
  }
  private font({ size = BODY_PT, strong = false, colour = INK }: Look): PDFKit.PDFDocument {
    return this.doc
      .font(strong ? "strong" : "plain")
      .fontSize(size)
      .fillColor(colour);
  }
  /** A new page where less than this is left, points. */
  private room(points: number): void {
    const { doc } = this;
    if (doc.y + points > doc.page.height - MARGIN) doc.addPage();
  }
  private tagged(tag: string, draw: () => void): void {
    this.root.add(this.doc.struct(tag, {}, draw));
  }
  private text(
    tag: string,
    text: string,
    look: Look & { readonly before?: number; readonly keep?: number } = {},
  ): void {
    const { doc } = this;
    this.room(look.keep ?? 16);
    doc.y += look.before ?? 0;
    this.font(look);
    this.tagged(tag, () => void doc.text(text, MARGIN, doc.y, { width: this.width, lineGap: 2 }));
    doc.y += 3;
  }

  private block(b: Block): void {
    switch (b.kind) {
      case "text":
        return this.text("P", b.text, { strong: b.strong ?? false });
      case "list":
        return b.items.forEach((i) => this.item(i));
      case "caution":
        return this.caution(b.text);
      case "facts":
        return this.facts(b.rows);
      case "table":
        return this.table(b.head, b.rows);
      case "photo":
        return this.picture(b.id, b.caption);
    }
  }
  private item(text: string): void {
    const { doc } = this;
    this.room(16);
    this.font({});
    const top = doc.y;
    this.tagged("P", () => {
      doc.text("•", MARGIN, top, { width: 12 });
      doc.text(text, MARGIN + 14, top, { width: this.width - 14, lineGap: 2 });
    });
    doc.y += 2;
  }
  private caution(text: string): void {
    const { doc } = this;
    this.font({});
    const height = doc.heightOfString(text, { width: this.width - 16, lineGap: 2 });
    this.room(height + 8);
    const top = doc.y;
    doc.rect(MARGIN, top, 3, height + 4).fill(RUST);
    this.font({});
    this.tagged("P", () => void doc.text(text, MARGIN + 12, top + 2, { width: this.width - 16, lineGap: 2 }));
    doc.y = top + height + 10;
  }
  private facts(rows: readonly (readonly [string, string])[]): void {
    const { doc } = this;
    const first = 150;
    for (const [name, value] of rows) {
      this.font({});
      const height = Math.max(14, doc.heightOfString(value, { width: this.width - first, lineGap: 2 }));
      this.room(height);
      const top = doc.y;
      this.font({ colour: MUTED });
      this.tagged("P", () => {
        doc.text(name, MARGIN, top, { width: first - 8 });
        this.font({});
        doc.text(value, MARGIN + first, top, { width: this.width - first, lineGap: 2 });
      });
      doc.y = top + height + 2;
    }
  }
  private table(head: readonly string[], rows: readonly (readonly string[])[]): void {
    const widths = columnWidths(head, rows, this.width);
    const draw = (cells: readonly string[], strong: boolean) => {
      const { doc } = this;
      this.font({ size: 9, strong });
      const height = Math.max(...cells.map((c, i) => doc.heightOfString(c || " ", { width: widths[i]! - 6 })));
      this.room(height + 6);
      const top = doc.y;
      doc
        .moveTo(MARGIN, top)
        .lineTo(MARGIN + this.width, top)
        .lineWidth(0.5)
        .strokeColor(LINE)
        .stroke();
      this.font({ size: 9, strong, colour: strong ? MUTED : INK });
      this.tagged("P", () => {
        let x = MARGIN;
        cells.forEach((c, i) => {
          doc.text(c, x, top + 3, { width: widths[i]! - 6 });
          x += widths[i]!;
        });
      });
      doc.y = top + height + 6;
    };
    draw(head, true);
    for (const r of rows) draw(r, false);
    this.doc.y += 4;
  }
  private picture(id: string, caption: string): void {
    const { doc } = this;
    const bytes = this.photo?.(id);
    if (!bytes) return;
    this.room(PHOTO_PT + 20);
    const top = doc.y;
    try {
      doc.image(Buffer.from(bytes), MARGIN, top, { fit: [this.width, PHOTO_PT] });
    } catch {
      return; // no picture that can be drawn
    }
    doc.y = top + PHOTO_PT + 4;
    this.text("P", caption, { size: 9, colour: MUTED });
  }
  private pageNumbers(): void {
    const { doc } = this;
    const { start, count } = doc.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      doc.switchToPage(i);
      doc.page.margins.bottom = 0; // room for the line below the text
      this.font({ size: 8.5, colour: MUTED });
      doc.text(`${i + 1} / ${count}`, MARGIN, doc.page.height - 36, { width: this.width, align: "right" });
    }
  }
}
interface Look {
  readonly size?: number;
  readonly strong?: boolean;
  readonly colour?: string;
}

/** Widths by what stands in the columns: a long one gets more, none less than it needs for a word. */
function columnWidths(head: readonly string[], rows: readonly (readonly string[])[], whole: number): number[] {
  const wanted = head.map((h, i) => {
    const lengths = [h, ...rows.map((r) => r[i] ?? "")].map((c) => c.length);
    return Math.min(40, Math.max(6, ...lengths));
  });
  const sum = wanted.reduce((a, b) => a + b, 0);
  return wanted.map((w) => (w / sum) * whole);
}
