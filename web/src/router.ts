import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './features/session/store'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'sheets', component: () => import('./screens/SheetsScreen.vue') },
    { path: '/keys', name: 'keys', component: () => import('./screens/ProofsScreen.vue') },
    { path: '/log-in', name: 'log-in', component: () => import('./screens/LogInScreen.vue') },
    { path: '/build', name: 'build', component: () => import('./screens/BuildScreen.vue') },
    { path: '/bank', name: 'bank', component: () => import('./screens/BankScreen.vue') },
    { path: '/classes', name: 'classes', component: () => import('./screens/ClassesScreen.vue') },
    {
      path: '/sets/:set(\\d+)/:face(patterns|pages|room|slips)?',
      name: 'mark',
      component: () => import('./screens/MarkScreen.vue'),
      props: (route) => ({
        setId: Number(route.params.set),
        face: String(route.params.face || 'table'),
        working: Number(route.query.working) || 0,
      }),
    },
    {
      path: '/classes/:class(\\d+)/patterns',
      name: 'overtime',
      component: () => import('./screens/OvertimeScreen.vue'),
      props: (route) => ({ classId: Number(route.params.class) }),
    },
    { path: '/room', name: 'room', component: () => import('./screens/RoomScreen.vue') },
    { path: '/people', name: 'people', component: () => import('./screens/PeopleScreen.vue') },
    { path: '/account', name: 'account', component: () => import('./screens/AccountScreen.vue') },
    {
      path: '/sheets/:sheet(\\d+)/print',
      name: 'print',
      component: () => import('./screens/PrintScreen.vue'),
      props: (route) => ({ sheetId: Number(route.params.sheet) }),
    },
    {
      path: '/sheets/:sheet(\\d+)/:place(\\d+)?/:face(anticipate|methods|board|graph)?',
      name: 'desk',
      component: () => import('./screens/DeskScreen.vue'),
      props: (route) => ({
        sheetId: Number(route.params.sheet),
        place: Number(route.params.place || 1),
        face: String(route.params.face || 'work'),
      }),
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.beforeEach(async (to) => {
  if (to.name === 'room') return true // students have no account here
  const session = useSession()
  await session.load()
  if (!session.teacher && to.name !== 'log-in') return { name: 'log-in', query: { next: to.fullPath } }
  if (!session.teacher) return true
  if (session.teacher.new_password) return to.name === 'account' ? true : { name: 'account' } // nothing else before a password of one's own
  if (to.name === 'log-in') return { path: session.home }
  if (to.name === 'people' && !session.teacher.manages) return { path: session.home }
  if (to.name !== 'people' && to.name !== 'account' && !session.teacher.teaches) return { path: '/people' }
  return true
})
