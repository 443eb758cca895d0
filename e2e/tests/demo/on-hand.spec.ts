import {
  choose,
  expect,
  lotPath,
  openBatch,
  seriousFaults,
  test,
} from "../page";

test("a lot takes deliveries and use, and each can be undone", async ({
  page,
}) => {
  await page.goto(await lotPath(page, "faba-bean-haulm"));
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    /^14 carrying cloths of faba bean haulm/,
  );
  const history = page.getByRole("region", { name: "Came and went" });
  await history.getByRole("button", { name: "More the amount" }).click();
  await history.getByRole("button", { name: "More came" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    /^16 carrying cloths/,
  );
  await history.getByRole("button", { name: "Used" }).click();
  await expect(history.getByRole("listitem").first()).toContainText(
    "Used otherwise−2 carrying cloths",
  );
  await history.getByRole("button", { name: /^Undo: Used otherwise/ }).click();
  await history.getByRole("button", { name: /^Undo: More came/ }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    /^14 carrying cloths/,
  );
  expect(await seriousFaults(page)).toEqual([]);
});

test("a batch takes its amounts off the stock and gives them back", async ({
  page,
}) => {
  await page.goto("/batches");
  await page
    .getByRole("button", { name: "Take Training plot ring from stock" })
    .click();
  await expect(
    page.getByText("The amounts of Training plot ring are off the stock."),
  ).toBeVisible();
  await page.getByRole("link", { name: "Stock" }).click();
  await expect(
    page.getByRole("spinbutton", { name: "Amount of Barley straw" }),
  ).toHaveValue("15");
  await page.getByRole("link", { name: "Batches" }).click();
  // What is left does not do for the other one: that is said, and nothing is taken.
  await page
    .getByRole("button", { name: "Take Terrace heap from stock" })
    .click();
  await expect(
    page.getByText("There is too little of barley straw."),
  ).toBeVisible();
  await page
    .getByRole("button", { name: "Give Training plot ring back to stock" })
    .click();
  await expect(
    page.getByText("The amounts of Training plot ring are back in stock."),
  ).toBeVisible();
  await page.goto(await lotPath(page, "barley-straw"));
  const given = page
    .getByRole("listitem")
    .filter({ hasText: "Given back by Training plot ring" });
  await expect(given.filter({ hasText: "+9 carrying cloths" })).toBeVisible();
});

test("the method calls up what its materials do not bear", async ({ page }) => {
  await openBatch(page, "Terrace heap");
  const way = page.getByRole("region", { name: "Method" });
  await expect(way.getByRole("combobox")).toHaveValue("bay-turned");
  await page.getByRole("button", { name: "+ Add from stock" }).click();
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /^Hen house sweepings/ })
    .click();
  await way.getByRole("combobox").selectOption("Worm bin");
  await expect(way).toContainText("Hen house sweepings: does not go.");
  await way
    .getByRole("combobox")
    .selectOption("Bays, turned from one to the next");
  await expect(way).not.toContainText("not go.");
});

test("measures are weighed in chains", async ({ page }) => {
  await page.goto("/measures");
  expect(await seriousFaults(page)).toEqual([]);
  const sum = page.getByRole("region", { name: "How much is that?" });
  await sum.getByRole("spinbutton").fill("9");
  await choose(
    sum.getByRole("combobox", { name: "Of which container" }),
    page.getByRole("option", { name: /^barrows/ }),
  );
  await sum.getByRole("combobox", { name: "Of what" }).fill("cattle");
  await page
    .getByRole("option", { name: /^Cattle/ })
    .first()
    .click();
  await expect(sum).toContainText("9 × 70 L = 630 L");
  await page.getByRole("button", { name: "Change barrow" }).click();
  // A dialog that has just opened takes the keyboard to its first field.
  await expect(
    page.getByRole("textbox", { name: "Container", exact: true }),
  ).toBeFocused();
  await page.getByLabel("Filled to, % of level").fill("120");
  await expect(page.getByRole("img", { name: "It holds 84 L" })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("button", { name: "Remove pannier pair" }).click();
  await expect(page.getByText("pannier pair is off the list.")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(
    page.getByRole("button", { name: "Change pannier pair" }),
  ).toBeVisible();
});

test("units change how figures are said and nothing that is kept", async ({
  page,
}) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "lb, US gal, °F" }).click();
  await page.getByRole("button", { name: "1,5" }).click();
  await expect(
    page.getByText(/^28 lb, 18 gal, a heap of 1,9 cu yd/),
  ).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole("link", { name: "Stock" }).click();
  const ash = page.getByRole("spinbutton", {
    name: "Amount of Wood ash (clean firewood)",
  });
  await expect(ash).toHaveValue("8,82");
  await page.getByRole("link", { name: "Settings" }).click();
  await page.getByRole("button", { name: "kg, litres, °C" }).click();
  await page.getByRole("button", { name: "as this device" }).click();
  await page.getByRole("link", { name: "Stock" }).click();
  await expect(ash).toHaveValue("4");
});

test("a second site has a stock and a bench of its own", async ({ page }) => {
  await openBatch(page, "Terrace heap");
  await page.getByRole("link", { name: "Settings" }).click();
  await page.getByRole("button", { name: "Add a site" }).click();
  await page.getByLabel("Name").fill("Lower plot");
  await page.getByLabel("Above the sea, m").fill("2500");
  await page.getByText("I know what a year is like there").click();
  await page.getByLabel("Jan, Mean", { exact: true }).fill("16");
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole("button", { name: "Save" }).click();
  const sites = page.getByRole("region", { name: "Sites" });
  await expect(
    sites.getByRole("listitem").filter({ hasText: "Lower plot" }),
  ).toContainText("2,500 m, open");

  await page.getByRole("link", { name: "Stock" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    /Nothing is written down yet/,
  );
  await page.getByRole("link", { name: "Bench" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "What shall go in?",
  );
  // Switching is one step, and what lay on the bench is still there.
  await page
    .getByRole("combobox", { name: "Site" })
    .selectOption("Velluma Terraces");
  await expect(
    page.getByRole("spinbutton", { name: "Amount of Sheep manure" }),
  ).toHaveValue("2");

  await page.getByRole("link", { name: "Settings" }).click();
  await page.getByRole("button", { name: "Remove Lower plot" }).click();
  await expect(
    page.getByText("Lower plot and all that is at it are off the list."),
  ).toBeVisible();
});
