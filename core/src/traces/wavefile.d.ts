// the library's own types are of another way to its file: this one is the same in Node.js and in a bundle
declare module "wavefile/dist/wavefile.js" {
  export { default } from "wavefile";
}
