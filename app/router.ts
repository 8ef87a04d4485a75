import { nextTick } from 'vue'
import { createRouter, createWebHistory, type RouteLocationNormalized, type RouteLocationRaw } from 'vue-router'
import { api } from './show/api.ts'

const LAST_SHOW_KEY = 'green-room:last-show'

/** Remembers which show to open first next time. */
export function rememberShow(showId: string): void {
  localStorage.setItem(LAST_SHOW_KEY, showId)
}

/** One word of a link's query. */
function queryOf(route: RouteLocationNormalized, name: string): string | undefined {
  const value = route.query[name]
  return typeof value === 'string' ? value : undefined
}

/** A presenter lands in the show they left, or in the demo. */
async function firstShow(view: 'build' | 'devices'): Promise<RouteLocationRaw> {
  const shows = await api.listShows().catch(() => [])
  const last = localStorage.getItem(LAST_SHOW_KEY)
  const show = shows.find((candidate) => candidate.id === last) ?? shows.find((candidate) => candidate.id.startsWith('demo-'))
  return show === undefined ? { name: 'shows' } : { name: view, params: { showId: show.id } }
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/',
      name: 'home',
      component: () => import('./shows/ShowsView.vue'),
      beforeEnter: () => firstShow('build'),
    },
    { path: '/shows', name: 'shows', component: () => import('./shows/ShowsView.vue') },
    {
      path: '/show/:showId/build',
      name: 'build',
      component: () => import('./build/BuildView.vue'),
      props: (route) => ({ ...route.params, sceneId: queryOf(route, 'scene'), layerId: queryOf(route, 'layer') }),
    },
    {
      path: '/show/:showId/bench/:inputId?',
      name: 'bench',
      component: () => import('./bench/BenchView.vue'),
      props: (route) => ({ ...route.params, sceneId: queryOf(route, 'scene'), layerId: queryOf(route, 'layer'), stepId: queryOf(route, 'step') }),
    },
    {
      path: '/show/:showId/devices',
      name: 'devices',
      component: () => import('./devices/DevicesView.vue'),
      props: true,
    },
    // Devices of the show that was open last.
    { path: '/devices', component: () => import('./shows/ShowsView.vue'), beforeEnter: () => firstShow('devices') },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

// A view that opens takes the focus, so that the Tab key begins there and a screen reader reads its heading.
router.afterEach((to, from) => {
  if (from.name === undefined || to.path === from.path || from.name === to.name) return
  void nextTick(() => document.querySelector<HTMLElement>('main')?.focus({ preventScroll: true }))
})
