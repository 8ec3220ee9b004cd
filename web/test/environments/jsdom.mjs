import { TestEnvironment } from "jest-environment-jsdom";
import { addCore } from "./core.mjs";

export default class CoreInJsdom extends TestEnvironment {
  async setup() {
    await super.setup();
    await addCore(this.global);
    // every browser has it, jsdom has not
    this.global.structuredClone = structuredClone;
  }
}
