import { ocrName, SHEET_FORMAT, type DrawingSheet, type SheetContent } from "@radicula/core";
import type { Page } from "@/ui/page/fetchPage";
import { pictureOf } from "@/ui/page/pictureOf";

/** Longest side of the picture that is read, points: letters of fine print are some 20 points high. */
const LONGEST = 4200;
/** What is read with less than this is noise, 0 to 100. Judgement. */
const LEAST_SURE = 30;

/** Reads the words of a page that is a picture, on this device. @param onShare told how much is done, 0 to 1 */
export async function readWords(
  sheet: DrawingSheet,
  page: Page,
  onShare: (share: number) => void,
  signal: AbortSignal,
): Promise<SheetContent> {
  const { createWorker, OEM, PSM } = await import("tesseract.js");
  const canvas = await pictureOf(sheet.id, page, { x: 0, y: 0, width: page.width, height: page.height }, LONGEST);
  const reader = await createWorker("eng", OEM.LSTM_ONLY, {
    workerPath: "/ocr/worker.min.js",
    workerBlobURL: false,
    corePath: "/ocr",
    langPath: "/ocr",
    cacheMethod: "none",
    logger: (m) => (m.status === "recognizing text" ? onShare(m.progress) : undefined),
  });
  const stop = () => void reader.terminate();
  signal.addEventListener("abort", stop);
  try {
    // words that stand anywhere, as on a drawing
    await reader.setParameters({ tessedit_pageseg_mode: PSM.SPARSE_TEXT });
    const { data } = await reader.recognize(canvas, {}, { blocks: true });
    const scale = sheet.width / canvas.width;
    const words = (data.blocks ?? [])
      .flatMap((b) => b.paragraphs)
      .flatMap((p) => p.lines)
      .flatMap((l) => l.words)
      .filter((w) => w.confidence >= LEAST_SURE && /[\p{L}\p{N}]/u.test(w.text))
      .map(({ text, confidence, bbox: { x0, y0, x1, y1 } }) => ({
        text: ocrName(text.trim()).slice(0, 200),
        x: x0 * scale,
        y: y0 * scale,
        width: (x1 - x0) * scale,
        height: (y1 - y0) * scale,
        sure: confidence / 100,
      }));
    const { width, height } = sheet;
    return { format: SHEET_FORMAT, version: 1, width, height, words, lines: [], boxes: [], dots: [] };
  } finally {
    signal.removeEventListener("abort", stop);
    await reader.terminate();
  }
}
