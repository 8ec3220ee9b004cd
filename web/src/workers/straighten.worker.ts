import { expose } from "comlink";
import { liftContrast, straightened, type Corners } from "@/ui/page/straighten";

const api = {
  /** The sheet between four corners of a picture, as a JPEG file. */
  straighten: async (picture: ImageBitmap, corners: Corners, lift: boolean): Promise<Blob> => {
    const canvas = new OffscreenCanvas(picture.width, picture.height);
    const context = canvas.getContext("2d", { willReadFrequently: true });
    if (!context) throw new Error("the browser draws no picture");
    context.drawImage(picture, 0, 0);
    picture.close();
    const found = straightened(context.getImageData(0, 0, canvas.width, canvas.height), corners);
    if (lift) liftContrast(found);
    canvas.width = found.width;
    canvas.height = found.height;
    canvas
      .getContext("2d")
      ?.putImageData(new ImageData(new Uint8ClampedArray(found.data), found.width, found.height), 0, 0);
    return canvas.convertToBlob({ type: "image/jpeg", quality: 0.9 });
  },
};
export type StraightenApi = typeof api;
expose(api);
