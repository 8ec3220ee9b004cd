/** Colours and fonts of the page do not travel with a picture: they are written into it. */
const VARIABLE = /var\((--[a-z-]+)\)/g;

/** The drawing as an SVG file of its own. */
export function svgText(svg: SVGSVGElement): string {
  const style = getComputedStyle(document.documentElement);
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  const { width, height } = svg.viewBox.baseVal;
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  copy.style.background = style.getPropertyValue("--card").trim();
  copy.removeAttribute("class");
  for (const element of [copy, ...copy.querySelectorAll("*")]) {
    for (const a of [...element.attributes])
      if (a.value.includes("var("))
        element.setAttribute(
          a.name,
          a.value.replace(VARIABLE, (_all, name: string) =>
            name === "--mono" ? "monospace" : name === "--sans" ? "sans-serif" : style.getPropertyValue(name).trim(),
          ),
        );
    element.removeAttribute("tabindex");
  }
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}`;
}

/** Longest side of a picture, so that a huge drawing does not ask for more memory than a browser gives. */
const LONGEST = 12_000;
export async function pngOf(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.viewBox.baseVal;
  const scale = Math.min(2, LONGEST / Math.max(width, height));
  const url = URL.createObjectURL(new Blob([svgText(svg)], { type: "image/svg+xml" }));
  try {
    const image = new Image();
    await new Promise((resolve, reject) => {
      image.onload = resolve;
      image.onerror = reject;
      image.src = url;
    });
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(width * scale);
    canvas.height = Math.round(height * scale);
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob((b) => (b ? resolve(b) : reject(new Error("no picture"))), "image/png"),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}

export function save(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
