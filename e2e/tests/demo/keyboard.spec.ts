import { expect, test, WIDE } from "../page";

test.use({ viewport: WIDE });

test("a mix is made, judged and saved without a mouse", async ({ page }) => {
  await page.goto("/bench");
  await expect(
    page.getByRole("button", { name: /^Barley straw/ }).first(),
  ).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(
    page.getByRole("link", { name: "Skip to the page" }),
  ).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.locator("main")).toBeFocused();
  const lot = page
    .getByRole("region", { name: "Amounts" })
    .getByRole("button", { name: /^Sheep manure/ });
  for (
    let tab = 0;
    tab < 40 &&
    !(await lot.evaluate((node) => node === document.activeElement));
    tab += 1
  ) {
    await page.keyboard.press("Tab");
  }
  await expect(lot).toBeFocused();
  await page.keyboard.press("Enter");
  const amount = page.getByRole("spinbutton", {
    name: "Amount of Sheep manure",
  });
  await expect(amount).toHaveValue("2");
  await amount.focus();
  await page.keyboard.press("ArrowUp");
  await expect(amount).toHaveValue("3");
  const save = page.getByRole("button", { name: "Save as batch" });
  await save.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name")).toBeFocused();
  await page.keyboard.type("Only dung");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Only dung is saved.")).toBeVisible();
});

test("a mix is found, limited, explained and taken without a mouse", async ({
  page,
}) => {
  await page.goto("/choices");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    /^\d good mix/,
  );
  const limits = page.getByText("Pins and limits");
  await limits.focus();
  await page.keyboard.press("Enter");
  const scraps = page.getByLabel("Kitchen scraps: how much of it");
  await scraps.focus();
  // The letters of a choice choose it.
  await page.keyboard.type("all");
  await expect(scraps).toHaveValue("all");
  const cautious = page.getByLabel("Rather a sure mix");
  await cautious.focus();
  await page.keyboard.press("Space");
  await expect(cautious).toBeChecked();
  const largest = page
    .getByRole("article")
    .filter({ hasText: "The largest heap" });
  await largest.getByRole("button", { name: /^It works/ }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/drawn from its range/)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByText(/drawn from its range/)).toBeHidden();
  await largest.getByRole("button", { name: /^Put on the bench/ }).focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/bench$/);
});

test("a rule is typed and its sums walked through without a mouse", async ({
  page,
}) => {
  await page.goto("/rules");
  const rule = page.getByLabel("Type a rule, or pick one");
  // A rule is there from the first; emptying the field before it is there would be no change.
  await expect(rule).not.toHaveValue("");
  await rule.fill("");
  await rule.focus();
  await page.keyboard.type("1 wheat straw : 1 sheep manure");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(/not 54\.$/);
  const shortcut = page
    .getByRole("button", { name: "The shortcut, averaging over the parts: 54" })
    .first();
  await shortcut.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/1 × 92 = /)).toBeVisible();
});
