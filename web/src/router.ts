import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './features/session/store'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'sheets', component: () => import('./screens/SheetsScreen.vue') },
    { path: '/keys', name: 'keys', component: () => import('./screens/ProofsScreen.vue') },
    { path: '/log-in', name: 'log-in', component: () => import('./screens/LogInScreen.vue') },
    {
      path: '/sheets/:sheet(\\d+)/:place(\\d+)?/:face(anticipate|methods|board|graph)?',
      name: 'desk',
      component: () => import('./screens/DeskScreen.vue'),
      props: (route) => ({ sheetId: Number(route.params.sheet), place: Number(route.params.place || 1), face: String(route.params.face || 'work') }),
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  await session.load()
  if (!session.teacher && to.name !== 'log-in') return { name: 'log-in', query: { next: to.fullPath } }
  if (session.teacher && to.name === 'log-in') return { path: '/' }
  return true
})
