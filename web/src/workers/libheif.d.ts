/** The part of the library that is used here. */
declare module "libheif-js" {
  interface HeifImage {
    get_width(): number;
    get_height(): number;
    display(image: ImageData, shown: (image: ImageData | null) => void): void;
  }
  const libheif: { HeifDecoder: new () => { decode(file: Uint8Array): HeifImage[] } };
  export default libheif;
}
