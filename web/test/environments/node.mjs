import { TestEnvironment } from "jest-environment-node";
import { addCore } from "./core.mjs";

export default class CoreInNode extends TestEnvironment {
  async setup() {
    await super.setup();
    await addCore(this.global);
  }
}
