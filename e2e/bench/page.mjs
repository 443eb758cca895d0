/**
 * How fast the pages are, in a browser: on a cheap phone with a poor connection, and on a full farm.
 * Prints one line a figure beside what is held to. It measures, it does not judge.
 */
import { chromium } from 'playwright'

const address = process.env.ZYMARCH_ADDRESS ?? 'http://127.0.0.1:8420'
/** A farm of 500 lots, and as its second site one of 100. */
const full = process.env.ZYMARCH_FULL
/** The poor connection: 300 ms there and back, 400 kbit/s, and a processor six times slower. */
const LATENCY_MS = 300
const BYTES_A_SECOND = 400_000 / 8
const SLOWER = 6
const PHONE = { width: 360, height: 740 }
const WIDE = { width: 1280, height: 800 }

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--enable-precise-memory-info'],
})
const get = async (path, at = address) => (await fetch(`${at}${path}`)).json()
const say = (what, figure, held = '') => console.log(`${what.padEnd(58)}${figure.padStart(12)}  ${held}`)
const whole = (number) => `${Math.round(number)}`

/** A page that nothing was kept for, with what was asked of the server and how far the page shifted. */
async function fresh({ slow = 1, poor = false, size = WIDE, kept = {} } = {}) {
  const context = await browser.newContext({ viewport: size, locale: 'en-GB' })
  const page = await context.newPage()
  const client = await context.newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Performance.enable')
  const asked = []
  const bytes = new Map()
  client.on('Network.requestWillBeSent', ({ requestId, request, timestamp }) =>
    asked.push({ requestId, at: timestamp, url: request.url.replace(address, ''), method: request.method }),
  )
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength, timestamp }) =>
    bytes.set(requestId, { length: encodedDataLength, at: timestamp }),
  )
  if (poor)
    await client.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: LATENCY_MS,
      downloadThroughput: BYTES_A_SECOND,
      uploadThroughput: BYTES_A_SECOND,
    })
  if (slow > 1) await client.send('Emulation.setCPUThrottlingRate', { rate: slow })
  await page.addInitScript((entries) => {
    for (const [key, value] of Object.entries(entries)) localStorage.setItem(key, value)
    window.shifted = 0
    window.shifts = []
    new PerformanceObserver((list) => {
      for (const one of list.getEntries())
        if (!one.hadRecentInput) {
          window.shifted += one.value
          window.shifts.push([
            one.value,
            one.startTime,
            one.sources.map((s) => s.node?.outerHTML?.slice(0, 80)),
          ])
        }
    }).observe({ type: 'layout-shift', buffered: true })
  }, kept)
  return { context, page, client, asked, bytes }
}

/** Milliseconds from the start of the page until something holds there. */
const until = (page, test, argument) =>
  page.evaluate(
    ({ source, argument }) =>
      new Promise((done) => {
        const holds = new Function('argument', `return (${source})(argument)`)
        const look = () => (holds(argument) ? done(performance.now()) : requestAnimationFrame(look))
        look()
      }),
    { source: test.toString(), argument },
  )

/** A saved batch as it lies on the bench of a browser. */
async function benchOf(site) {
  const batches = await get(`/api/sites/${site}/batches`)
  const batch = await get(`/api/batches/${batches[0].id}`)
  const { id, version, name, items, water_l, heap, heaps, method } = batch
  const draft = {
    saved: { id, version, name, as: '' },
    items,
    water_l,
    heap,
    heaps,
    method,
    build_on: null,
    starters: [],
    done: [],
  }
  return {
    [`zymarch-draft-${site}`]: JSON.stringify(draft),
    'zymarch-person': JSON.stringify({ units: 'metric', decimals: 'device', site, currency: '' }),
  }
}

async function firstPage(site) {
  const { context, page, asked, bytes } = await fresh({
    slow: SLOWER,
    poor: true,
    size: PHONE,
    kept: await benchOf(site),
  })
  await page.goto(`${address}/bench`, { waitUntil: 'commit' })
  const painted = await until(page, () => performance.getEntriesByName('first-contentful-paint').length > 0)
  const verdict = await until(
    page,
    () => document.querySelectorAll('.strip:not([aria-busy=true]) button').length >= 4,
  )
  const requests = asked.length
  const sum = [...bytes.values()].reduce((all, one) => all + one.length, 0)
  say('phone: first paint [ms]', whole(painted))
  say('phone: verdict of a kept batch [ms]', whole(verdict), 'held to 6000')
  say('phone: requests until then', whole(requests), 'held to 14')
  say('phone: kB until then', (sum / 1000).toFixed(0), 'held to 230')
  if (process.env.DETAIL)
    for (const one of asked)
      console.log(
        '   ',
        one.method,
        one.url.slice(0, 90),
        whole((one.at - asked[0].at) * 1000),
        whole(((bytes.get(one.requestId)?.at ?? NaN) - asked[0].at) * 1000),
        bytes.get(one.requestId)?.length,
      )
  await page.waitForTimeout(6000)
  const all = [...bytes.values()].reduce((sum, one) => sum + one.length, 0)
  say('phone: kB after six more seconds, with pages fetched ahead', (all / 1000).toFixed(0))
  say('phone: layout shift', (await page.evaluate(() => window.shifted)).toFixed(3), 'held to 0')
  if (process.env.DETAIL) console.log(JSON.stringify(await page.evaluate(() => window.shifts), null, 1))
  // A tap, until the figures of the new amount stand there.
  const times = []
  for (let tap = 0; tap < 5; tap += 1) {
    const before = await page.evaluate(() => document.querySelector('.strip')?.innerText)
    const took = await page.evaluate(
      (before) =>
        new Promise((done) => {
          const from = performance.now()
          const button = [...document.querySelectorAll('.amounts .stepper button')].at(1)
          button.click()
          const look = () => {
            const strip = document.querySelector('.strip')
            if (strip.innerText !== before && strip.getAttribute('aria-busy') !== 'true')
              return done(performance.now() - from)
            requestAnimationFrame(look)
          }
          look()
        }),
      before,
    )
    times.push(took)
    await page.waitForTimeout(1500)
  }
  times.sort((one, other) => one - other)
  say(
    'phone: a tap until its figures [ms], median of 5',
    whole(times[2]),
    'held to 250 beside the 300 of the way',
  )
  await context.close()
}

async function emptyBench(site) {
  const { context, page } = await fresh({ slow: SLOWER, poor: true, size: PHONE })
  await page.goto(`${address}/bench`, { waitUntil: 'commit' })
  await page.waitForSelector('.find-first, .choices, .amounts button')
  await page.waitForTimeout(4000)
  say(
    'phone: layout shift of an empty bench',
    (await page.evaluate(() => window.shifted)).toFixed(3),
    'held to 0',
  )
  if (process.env.DETAIL) console.log(JSON.stringify(await page.evaluate(() => window.shifts), null, 1))
  await context.close()
}

async function stock(site, lots, slow) {
  const { context, page, client } = await fresh({
    slow,
    size: slow > 1 ? PHONE : WIDE,
    kept: { 'zymarch-person': JSON.stringify({ units: 'metric', decimals: 'device', site, currency: '' }) },
  })
  await page.goto(`${full}/stock`, { waitUntil: 'commit' })
  const usable = await until(page, () => document.querySelectorAll('.row .stepper').length >= 5)
  // Usable: the browser has drawn it and answers to a touch.
  const answered = await page.evaluate(
    () => new Promise((done) => requestAnimationFrame(() => setTimeout(() => done(performance.now())))),
  )
  const { metrics } = await client.send('Performance.getMetrics')
  const heap = metrics.find((one) => one.name === 'JSHeapUsedSize').value
  const nodes = metrics.find((one) => one.name === 'Nodes').value
  say(
    `${lots} lots in stock usable${slow > 1 ? `, processor ${slow} times slower` : ''} [ms]`,
    whole(Math.max(usable, answered)),
    `held to ${slow > 1 ? 2000 : 1000}`,
  )
  say('  heap [MB], nodes', `${(heap / 1e6).toFixed(0)}, ${nodes}`)
  await context.close()
}

/** A heap with a hundred thousand readings, until its trace is drawn. */
async function heap(site) {
  const [{ id }] = await get(`/api/sites/${site}/heaps`, full)
  const times = []
  for (let time = 0; time < 5; time += 1) {
    const { context, page } = await fresh({
      kept: { 'zymarch-person': JSON.stringify({ units: 'metric', decimals: 'device', site, currency: '' }) },
    })
    await page.goto(`${full}/heaps`, { waitUntil: 'networkidle' })
    // As somebody opens it who is on the page of heaps already.
    times.push(
      await page.evaluate(
        (to) =>
          new Promise((done) => {
            const from = performance.now()
            document.querySelector(`a[href="${to}"]`).click()
            const look = () => {
              const line = document.querySelector('path.core')
              if (line?.getAttribute('d')) requestAnimationFrame(() => done(performance.now() - from))
              else requestAnimationFrame(look)
            }
            look()
          }),
        `/heaps/${id}`,
      ),
    )
    await context.close()
  }
  times.sort((one, other) => one - other)
  say('a heap of 100,000 readings opened, until it is drawn [ms]', whole(times[2]), 'held to 300')
}

const [{ id: site }] = await get('/api/sites')
const only = process.env.ONLY
if (!only || only === 'first') await firstPage(site)
if (!only || only === 'empty') await emptyBench(site)
if (full && (!only || only === 'stock')) {
  const [many, fewer] = await get('/api/sites', full)
  await stock(fewer.id, 100, SLOWER)
  await stock(many.id, 500, 1)
}
if (full && (!only || only === 'heap')) await heap((await get('/api/sites', full))[1].id)
await browser.close()
