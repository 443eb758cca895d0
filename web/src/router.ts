import { allWords } from './i18n'
import { createRouter, createWebHistory, type RouteLocationNormalized } from 'vue-router'

const number = (value: unknown) => (typeof value === 'string' && /^\d+$/.test(value) ? Number(value) : null)
const id = (route: RouteLocationNormalized) => ({ id: number(route.params.id) ?? 0 })

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/bench' },
    { path: '/stock', name: 'stock', component: () => import('./pages/StockPage.vue') },
    { path: '/stock/:id', component: () => import('./pages/LotPage.vue'), props: id },
    {
      path: '/stock/:id/test/:kind',
      component: () => import('./pages/TestPage.vue'),
      props: (route) => ({ ...id(route), kind: route.params.kind, test: number(route.query.test) }),
    },
    { path: '/measures', component: () => import('./pages/MeasuresPage.vue') },
    { path: '/bench', name: 'bench', component: () => import('./pages/BenchPage.vue') },
    { path: '/choices', name: 'choices', component: () => import('./pages/ChoicesPage.vue') },
    { path: '/rules', name: 'rules', component: () => import('./pages/RulesPage.vue') },
    { path: '/methods', name: 'methods', component: () => import('./pages/MethodsPage.vue') },
    {
      path: '/methods/new',
      component: () => import('./pages/MethodFormPage.vue'),
      props: (route) => ({ copy: route.query.copy ?? null, change: null }),
    },
    {
      path: '/methods/:id/change',
      component: () => import('./pages/MethodFormPage.vue'),
      props: (route) => ({ copy: null, change: route.params.id }),
    },
    {
      path: '/methods/:id',
      component: () => import('./pages/MethodPage.vue'),
      props: true,
    },
    { path: '/layers', name: 'layers', component: () => import('./pages/LayersPage.vue') },
    { path: '/prepare', name: 'prepare', component: () => import('./pages/PreparePage.vue') },
    { path: '/card', name: 'card', component: () => import('./pages/CardPage.vue') },
    { path: '/build/:id', component: () => import('./pages/BuildPage.vue'), props: id, meta: { bare: true } },
    { path: '/batches', name: 'batches', component: () => import('./pages/BatchesPage.vue') },
    { path: '/reference', name: 'reference', component: () => import('./pages/ReferencePage.vue') },
    { path: '/reference/file', component: () => import('./pages/MaterialFilePage.vue') },
    {
      path: '/reference/new',
      component: () => import('./pages/MaterialFormPage.vue'),
      props: (route) => ({ copy: route.query.copy ?? null, change: null }),
    },
    {
      path: '/reference/:material/change',
      component: () => import('./pages/MaterialFormPage.vue'),
      props: (route) => ({ copy: null, change: route.params.material }),
    },
    {
      path: '/reference/:material',
      component: () => import('./pages/MaterialPage.vue'),
      props: true,
    },
    { path: '/settings', name: 'settings', component: () => import('./pages/SettingsPage.vue') },
    { path: '/more', name: 'more', component: () => import('./pages/MorePage.vue') },
    { path: '/:anything(.*)*', name: 'lost', component: () => import('./pages/LostPage.vue') },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
})

router.beforeEach(async (to) => {
  if (to.name !== 'bench') await allWords()
})
