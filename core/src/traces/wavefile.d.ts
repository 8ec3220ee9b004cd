// the library declares types for its main module only; this file of it is the same in Node.js and in a bundle
declare module "wavefile/dist/wavefile.js" {
  export { default } from "wavefile";
}
