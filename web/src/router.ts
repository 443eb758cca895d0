import BenchPage from '@/mix/BenchPage.vue'
import { signedOut } from '@/api/door'
import { cutOff } from '@/api/trouble'
import { askAhead } from '@/farm/askAhead'
import { firstPath } from '@/farm/firstPath'
import { hasNewVersion, keepHere } from '@/offline/keep'
import { fetchLater } from '@/kit/later'
import { underWay } from '@/kit/useBackCloses'
import { allWords } from '@/words/i18n'
import type { QueryClient } from '@tanstack/vue-query'
import { watch } from 'vue'
import { createRouter, createWebHistory, type RouteLocationNormalized } from 'vue-router'

const text = (value: unknown) => (typeof value === 'string' ? value : null)
const id = (route: RouteLocationNormalized) => ({ id: text(route.params.id) ?? '' })

/** Nothing of the farm is there for whoever is not in yet. */
const DOOR = { bare: true, wall: true, door: true }

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'first', component: () => import('@/tend/TodayPage.vue') },
    { path: '/today', name: 'today', component: () => import('@/tend/TodayPage.vue') },
    { path: '/stock', name: 'stock', component: () => import('@/stock/StockPage.vue') },
    { path: '/stock/:id', component: () => import('@/stock/LotPage.vue'), props: id },
    {
      path: '/stock/:id/test/:kind',
      component: () => import('@/stock/TestPage.vue'),
      props: (route) => ({ ...id(route), kind: route.params.kind, test: text(route.query.test) }),
    },
    { path: '/signs', component: () => import('@/stock/SignsPage.vue') },
    { path: '/measures', component: () => import('@/stock/MeasuresPage.vue') },
    { path: '/bench', name: 'bench', component: BenchPage },
    { path: '/choices', name: 'choices', component: () => import('@/plan/ChoicesPage.vue') },
    { path: '/rules', name: 'rules', component: () => import('@/mix/RulesPage.vue') },
    { path: '/methods', name: 'methods', component: () => import('@/plan/MethodsPage.vue') },
    {
      path: '/methods/new',
      component: () => import('@/plan/MethodFormPage.vue'),
      props: (route) => ({ copy: route.query.copy ?? null, change: null }),
    },
    {
      path: '/methods/:id/change',
      component: () => import('@/plan/MethodFormPage.vue'),
      props: (route) => ({ copy: null, change: route.params.id }),
    },
    {
      path: '/methods/:id',
      component: () => import('@/plan/MethodPage.vue'),
      props: true,
    },
    { path: '/place', name: 'place', component: () => import('@/plan/PlacePage.vue') },
    { path: '/layers', name: 'layers', component: () => import('@/plan/LayersPage.vue') },
    { path: '/prepare', name: 'prepare', component: () => import('@/plan/PreparePage.vue') },
    { path: '/card', name: 'card', component: () => import('@/plan/CardPage.vue') },
    { path: '/plots', name: 'plots', component: () => import('@/plan/PlotsPage.vue') },
    { path: '/build/:id', component: () => import('@/build/BuildPage.vue'), props: id, meta: { bare: true } },
    {
      path: '/wall/:what',
      component: () => import('@/wall/WallPage.vue'),
      props: (route) => ({ what: text(route.params.what) ?? 'mix' }),
      meta: { bare: true, wall: true },
    },
    { path: '/heaps', name: 'heaps', component: () => import('@/tend/HeapsPage.vue') },
    { path: '/heaps/:id', component: () => import('@/tend/HeapPage.vue'), props: id },
    { path: '/heaps/:id/import', component: () => import('@/tend/ImportPage.vue'), props: id },
    { path: '/batches', name: 'batches', component: () => import('@/plan/BatchesPage.vue') },
    { path: '/reference', name: 'reference', component: () => import('@/stock/ReferencePage.vue') },
    { path: '/reference/file', component: () => import('@/stock/MaterialFilePage.vue') },
    { path: '/reference/causes', component: () => import('@/tend/CausesPage.vue') },
    {
      path: '/reference/causes/:code',
      component: () => import('@/tend/CausePage.vue'),
      props: true,
    },
    {
      path: '/reference/new',
      component: () => import('@/stock/MaterialFormPage.vue'),
      props: (route) => ({ copy: route.query.copy ?? null, change: null }),
    },
    {
      path: '/reference/:material/change',
      component: () => import('@/stock/MaterialFormPage.vue'),
      props: (route) => ({ copy: null, change: route.params.material }),
    },
    {
      path: '/reference/:material',
      component: () => import('@/stock/MaterialPage.vue'),
      props: true,
    },
    { path: '/waiting', name: 'waiting', component: () => import('@/waiting/WaitingPage.vue') },
    { path: '/people', name: 'people', component: () => import('@/people/PeoplePage.vue') },
    { path: '/comings', component: () => import('@/people/ComingsPage.vue') },
    {
      path: '/sign-in',
      component: () => import('@/people/SignInPage.vue'),
      meta: DOOR,
    },
    { path: '/join', component: () => import('@/people/SignInPage.vue'), meta: DOOR },
    {
      path: '/use',
      name: 'use',
      component: () => import('@/finish/UsePage.vue'),
      props: (route) => ({
        heap: text(route.query.heap),
        compost: text(route.query.compost),
        ground: text(route.query.ground),
      }),
    },
    { path: '/compost', name: 'compost', component: () => import('@/finish/CompostPage.vue') },
    { path: '/grounds', name: 'grounds', component: () => import('@/finish/GroundsPage.vue') },
    { path: '/compare', name: 'compare', component: () => import('@/finish/ComparePage.vue') },
    {
      path: '/chain/:of(lot|compost|ground)/:id',
      component: () => import('@/finish/ChainPage.vue'),
      props: true,
    },
    { path: '/follows', name: 'follows', component: () => import('@/tend/FollowsPage.vue') },
    { path: '/settings', name: 'settings', component: () => import('@/farm/SettingsPage.vue') },
    { path: '/words', name: 'words', component: () => import('@/farm/WordsPage.vue') },
    { path: '/more', name: 'more', component: () => import('@/farm/MorePage.vue') },
    { path: '/:anything(.*)*', name: 'lost', component: () => import('@/farm/LostPage.vue') },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
})

router.beforeEach(() => {
  underWay.is = true
})
router.afterEach(() => {
  underWay.is = false
})

// Whoever is not signed in is at the door, and goes on from there to where they wanted.
const AT_THE_DOOR = ['/sign-in', '/join']
const toTheDoor = (path: string) => ({
  path: '/sign-in',
  query: path === '/' || path === '/bench' ? {} : { to: path },
})
// What is to be done opens first, once there is a heap to do it at.
router.beforeEach(async (to) => (to.name === 'first' ? { path: await firstPath(), replace: true } : true))

router.beforeEach((to) => (signedOut.value && !AT_THE_DOOR.includes(to.path) ? toTheDoor(to.fullPath) : true))
watch(signedOut, async (is) => {
  if (!is) return
  // The first page may still be on its way.
  await router.isReady().catch(() => undefined)
  const { path, fullPath } = router.currentRoute.value
  if (!AT_THE_DOOR.includes(path)) void router.replace(toTheDoor(fullPath))
})

// A new version is here: the next page is fetched whole, so that old and new never mix.
router.beforeEach((to, from) => {
  if (!hasNewVersion.value || !from.matched.length) return true
  location.assign(to.fullPath)
  return false
})

router.beforeEach(async (to) => {
  if (to.name !== 'bench') await allWords()
})

// A page whose parts cannot be fetched is said, not silently left out.
router.onError((_error, to) => {
  underWay.is = false
  cutOff()
  if (to.name !== 'bench') void router.replace(router.currentRoute.value.fullPath)
})

/**
 * Fetches the pages of the field, and what opens on the bench, while nobody waits, so that they open
 * without signal: once nothing is asked of the farm any more.
 */
export function fetchAhead(queries: QueryClient) {
  const ahead = [
    '/stock',
    '/stock/ahead',
    '/layers',
    '/prepare',
    '/card',
    '/batches',
    '/build/ahead',
    '/today',
    '/heaps',
    '/heaps/ahead',
    '/choices',
    '/waiting',
  ]
  const fetchAll = () => {
    for (const path of ahead)
      for (const { components } of router.resolve(path).matched) {
        const page = components?.default
        // What is not there now is asked for again when it is opened.
        if (typeof page === 'function') void (page as () => Promise<unknown>)().catch(() => undefined)
      }
    void fetchLater()
    void keepHere().then(() => askAhead(queries).catch(() => undefined))
  }
  const whenIdle = () =>
    queries.isFetching()
      ? window.setTimeout(whenIdle, 1000)
      : (window.requestIdleCallback ?? window.setTimeout)(fetchAll)
  window.setTimeout(whenIdle, 4000)
}
