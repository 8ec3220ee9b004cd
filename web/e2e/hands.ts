import { expect, type Locator, type Page } from "@playwright/test";

/**
 * Counts what a person does. Keystroke-level model (Card, Moran & Newell 1980; values from memory): 0.28 s a key for an
 * average typist who is not a secretary, 1.1 s to point, 1.35 s to make up one's mind, here before every word and
 * press, which is more than the model's own rules ask for.
 */
export class Hands {
  keys = 0;
  points = 0;
  minds = 0;
  constructor(private readonly page: Page) {}
  async type(text: string) {
    this.minds++;
    this.keys += text.length;
    await this.page.keyboard.type(text);
  }
  async press(key: string) {
    this.keys += key.split("+").length;
    await this.page.keyboard.press(key);
  }
  /** What was copied elsewhere, as it comes by the clipboard. */
  async paste(text: string) {
    this.minds++;
    this.keys += 2;
    await this.page.keyboard.insertText(text);
  }
  async point(at: string | Locator) {
    this.minds++;
    this.points++;
    await (typeof at === "string" ? this.page.getByRole("button", { name: at, exact: true }) : at).click();
  }
  /** A file chosen in the window of the system: found, and pressed twice. */
  async file(input: Locator, name: string, text: string) {
    this.minds++;
    this.points += 2;
    await input.setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  }
  async sees(what: Locator) {
    await expect(what.first()).toBeVisible();
  }
  get seconds() {
    return this.keys * 0.28 + this.points * 1.1 + this.minds * 1.35;
  }
}
