import { fail, issue, ok, pdfContent, type Matrix, type Result, type SheetContent } from "@radicula/core";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { PAGE } from "@/ui/pageLimits";

/** A PDF opened on this device: nothing in it is run, and nothing of it is sent but the pages that are taken. */
export interface OpenPdf {
  readonly pages: number;
  /** a page as a small picture, to choose by */
  readonly thumbnail: (page: number) => Promise<string>;
  readonly take: (page: number) => Promise<{ readonly picture: Blob; readonly content: SheetContent }>;
  readonly close: () => void;
}
/** The longer side of a page's picture, points: fine print on a page of A3 stays readable. */
const LONGER = 3400;
const THUMBNAIL = 220;

/** Issues: `page.locked` where the file asks for a password, `page.no-pdf`. */
export async function openPdf(file: File): Promise<Result<OpenPdf>> {
  const pdfjs = await import("pdfjs-dist");
  pdfjs.GlobalWorkerOptions.workerSrc = "/pdf/pdf.worker.min.mjs";
  try {
    const task = pdfjs.getDocument({
      data: new Uint8Array(await file.arrayBuffer()),
      standardFontDataUrl: "/pdf/standard_fonts/",
      cMapUrl: "/pdf/cmaps/",
      // no code of any kind that a file may bring
      isEvalSupported: false,
      enableXfa: false,
      useWasm: false,
      verbosity: 0,
    });
    const document = await task.promise;
    return ok({
      pages: document.numPages,
      thumbnail: async (n) => {
        const canvas = await drawn(document, n, THUMBNAIL);
        return canvas.toDataURL("image/png");
      },
      take: async (n) => {
        const page = await document.getPage(n);
        const view = page.getViewport({ scale: 1 });
        const { items } = await page.getTextContent();
        const content = pdfContent(
          {
            width: view.width,
            height: view.height,
            transform: view.transform as unknown as Matrix,
            operations: await page.getOperatorList(),
            texts: items.flatMap((i) => ("str" in i ? [i] : [])),
          },
          pdfjs.OPS,
        );
        const canvas = await drawn(document, n, LONGER);
        const picture = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
        if (!picture) throw new Error("the browser gives no picture of the page");
        page.cleanup();
        return { picture, content };
      },
      close: () => void task.destroy(),
    });
  } catch (error) {
    const isLocked = error instanceof Error && error.name === "PasswordException";
    return fail([issue(isLocked ? "page.locked" : "page.no-pdf")]);
  }
}

async function drawn(document: PDFDocumentProxy, n: number, longer: number): Promise<HTMLCanvasElement> {
  const page = await document.getPage(n);
  const own = page.getViewport({ scale: 1 });
  const scale = longer / Math.max(own.width, own.height, 1);
  const viewport = page.getViewport({ scale });
  const canvas = window.document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(viewport.width));
  canvas.height = Math.max(1, Math.round(viewport.height));
  if (canvas.width * canvas.height > PAGE.points) throw new Error("the page is too large to be drawn");
  await page.render({ canvas, viewport, background: "#ffffff" }).promise;
  return canvas;
}
