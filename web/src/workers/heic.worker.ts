import { expose } from "comlink";
import libheif from "libheif-js";

const api = {
  /** The first picture of a HEIC file, upright, as a JPEG file. @throws where it holds none that can be read */
  toJpeg: async (file: Blob): Promise<Blob> => {
    const [picture] = new libheif.HeifDecoder().decode(new Uint8Array(await file.arrayBuffer()));
    if (!picture) throw new Error("no picture");
    const width = picture.get_width();
    const height = picture.get_height();
    const image = new ImageData(width, height);
    await new Promise<void>((resolve, reject) =>
      picture.display(image, (shown) => (shown ? resolve() : reject(new Error("not decoded")))),
    );
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext("2d")?.putImageData(image, 0, 0);
    return canvas.convertToBlob({ type: "image/jpeg", quality: 0.92 });
  },
};
export type HeicApi = typeof api;
expose(api);
