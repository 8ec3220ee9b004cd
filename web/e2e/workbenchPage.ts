import { expect, type Page } from "@playwright/test";

/** The wiring workbench as a test sees it. */
export const cell = (page: Page, row: number, column: number) =>
  page
    .locator(".dsg-row")
    .nth(row + 1)
    .locator(".dsg-cell")
    .nth(column + 1);
/** Waits for the first line of a table. */
export const table = (page: Page) => expect(cell(page, 0, 0)).toBeVisible();
