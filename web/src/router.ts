import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/bench' },
    { path: '/stock', name: 'stock', component: () => import('./pages/StockPage.vue') },
    { path: '/bench', name: 'bench', component: () => import('./pages/BenchPage.vue') },
    { path: '/layers', name: 'layers', component: () => import('./pages/LayersPage.vue') },
    { path: '/batches', name: 'batches', component: () => import('./pages/BatchesPage.vue') },
    { path: '/:anything(.*)*', name: 'lost', component: () => import('./pages/LostPage.vue') },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
})
