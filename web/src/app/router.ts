/** Addresses. Everything but signing in needs somebody signed in. */
import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './session'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', name: 'machines', component: () => import('@/views/machines/Machines.vue'), meta: { title: 'Machines' } },
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('@/views/gate/SignIn.vue'),
      meta: { title: 'Log in', open: true },
    },
    {
      path: '/forgotten',
      name: 'forgotten',
      component: () => import('@/views/gate/Forgotten.vue'),
      meta: { title: 'A new password', open: true },
    },
    {
      path: '/new-password/:who/:token',
      name: 'new-password',
      component: () => import('@/views/gate/NewPassword.vue'),
      props: true,
      meta: { title: 'A new password', open: true },
    },
    {
      path: '/join/:secret',
      name: 'join',
      component: () => import('@/views/gate/Join.vue'),
      props: true,
      meta: { title: 'Join', open: true },
    },
    {
      path: '/found',
      name: 'found',
      component: () => import('@/views/gate/Found.vue'),
      meta: { title: 'Open the shop', open: true },
    },
    {
      path: '/account',
      name: 'account',
      component: () => import('@/views/account/Account.vue'),
      meta: { title: 'Your account' },
    },
    {
      path: '/shop/:part(ways|hours|places|crops|rates|outside)?',
      name: 'shop',
      props: true,
      component: () => import('@/views/shop/Shop.vue'),
      meta: { title: 'The shop' },
    },
    {
      path: '/shop/changes',
      name: 'changes',
      component: () => import('@/views/shop/Changes.vue'),
      meta: { title: 'Changes' },
    },
    { path: '/people', name: 'people', component: () => import('@/views/people/People.vue'), meta: { title: 'People' } },
    {
      path: '/walk-arounds/:id',
      name: 'walk-around',
      component: () => import('@/views/walk-around/WalkAround.vue'),
      props: true,
      meta: { title: 'Walk-around' },
    },
    {
      path: '/machines/new',
      name: 'new-machine',
      component: () => import('@/views/machine-form/NewMachine.vue'),
      meta: { title: 'Add a machine' },
    },
    {
      path: '/machines/:id/particulars',
      name: 'particulars',
      component: () => import('@/views/machine-form/Particulars.vue'),
      props: true,
      meta: { title: 'What it is' },
    },
    {
      path: '/machines/:id',
      name: 'machine',
      component: () => import('@/views/machine/Machine.vue'),
      props: true,
      meta: { title: 'Machine' },
    },
    {
      path: '/machines/:id/wear',
      name: 'wear',
      component: () => import('@/views/wear/Wear.vue'),
      props: true,
      meta: { title: 'Wear' },
    },
    {
      path: '/machines/:id/set-up',
      name: 'set-up',
      component: () => import('@/views/set-up/SetUp.vue'),
      props: true,
      meta: { title: 'Set-up' },
    },
    {
      path: '/machines/:id/changeover',
      name: 'changeover',
      component: () => import('@/views/changeover/Changeover.vue'),
      props: true,
      meta: { title: 'Changeover' },
    },
    {
      path: '/machines/:id/calibrations',
      name: 'calibrations',
      component: () => import('@/views/calibration/Calibrations.vue'),
      props: true,
      meta: { title: 'Calibrations' },
    },
    {
      path: '/machines/:id/calibrations/:calibration',
      name: 'calibration',
      component: () => import('@/views/calibration/Runner.vue'),
      props: true,
      meta: { title: 'Calibration' },
    },
    {
      path: '/machines/:id/field',
      name: 'field-card',
      component: () => import('@/views/field/FieldCard.vue'),
      props: true,
      meta: { title: 'Field card' },
    },
    {
      path: '/machines/:id/today',
      name: 'daily',
      component: () => import('@/views/field/DailyCard.vue'),
      props: true,
      meta: { title: 'Today' },
    },
    {
      path: '/machines/:id/faults',
      name: 'faults',
      component: () => import('@/views/faults/Faults.vue'),
      props: true,
      meta: { title: 'Faults' },
    },
    {
      path: '/machines/:id/faults/:trace',
      name: 'trace',
      component: () => import('@/views/faults/Trace.vue'),
      props: true,
      meta: { title: 'Fault' },
    },
    {
      path: '/machines/:id/symptoms',
      name: 'own-symptoms',
      component: () => import('@/views/faults/OwnSymptoms.vue'),
      props: true,
      meta: { title: 'What may be wrong' },
    },
    {
      path: '/machines/:id/swap-tests/:test',
      name: 'swap-test',
      component: () => import('@/views/faults/SwapTest.vue'),
      props: true,
      meta: { title: 'Swap test' },
    },
    {
      path: '/machines/:id/recordings',
      name: 'recordings',
      component: () => import('@/views/faults/Recordings.vue'),
      props: true,
      meta: { title: 'Recordings' },
    },
    {
      path: '/machines/:id/recordings/:recording',
      name: 'recording',
      component: () => import('@/views/faults/Recording.vue'),
      props: true,
      meta: { title: 'Recording' },
    },
    {
      path: '/daily',
      name: 'daily-cards',
      component: () => import('@/views/field/DailyCards.vue'),
      meta: { title: 'Daily cards' },
    },
    {
      path: '/machines/:id/logbook',
      name: 'logbook',
      component: () => import('@/views/logbook/Logbook.vue'),
      props: true,
      meta: { title: 'Logbook' },
    },
    {
      path: '/wear',
      name: 'season-end',
      component: () => import('@/views/wear/SeasonEnd.vue'),
      meta: { title: 'Season’s end' },
    },
    { path: '/bench/:subject?', name: 'bench', component: () => import('@/views/bench/Bench.vue'), meta: { title: 'Bench' } },
    {
      path: '/catalogue',
      name: 'catalogue',
      component: () => import('@/views/catalogue/Catalogue.vue'),
      meta: { title: 'Catalogue' },
    },
    {
      path: '/own-checks',
      name: 'own-checks',
      component: () => import('@/views/own-checks/OwnChecks.vue'),
      meta: { title: 'Own checks' },
    },
    {
      path: '/own-checks/new',
      name: 'new-check',
      component: () => import('@/views/own-checks/CheckForm.vue'),
      meta: { title: 'Add a check' },
    },
    {
      path: '/own-checks/:family/:check',
      name: 'own-check',
      component: () => import('@/views/own-checks/CheckForm.vue'),
      props: true,
      meta: { title: 'Change a check' },
    },
    { path: '/rules', name: 'rules', component: () => import('@/views/rules/Rules.vue'), meta: { title: 'Rules' } },
    {
      path: '/walk-arounds/:id/map',
      name: 'row-map',
      component: () => import('@/views/row-map/RowMap.vue'),
      props: true,
      meta: { title: 'Row map' },
    },
    {
      path: '/walk-arounds/:id/summary',
      name: 'summary',
      component: () => import('@/views/summary/Summary.vue'),
      props: true,
      meta: { title: 'Summary' },
    },
    {
      path: '/walk-arounds/:id/findings',
      name: 'findings',
      component: () => import('@/views/findings/Findings.vue'),
      props: true,
      meta: { title: 'Findings' },
    },
    {
      path: '/walk-arounds/:id/parts',
      name: 'parts',
      component: () => import('@/views/parts/Parts.vue'),
      props: true,
      meta: { title: 'Parts' },
    },
    { path: '/plan', name: 'plan', component: () => import('@/views/plan/Plan.vue'), meta: { title: 'Work plan' } },
    { path: '/plan/mine', name: 'my-day', component: () => import('@/views/plan/MyDay.vue'), meta: { title: 'My day' } },
    {
      path: '/plan/hands',
      name: 'hands',
      component: () => import('@/views/plan/SeasonHands.vue'),
      meta: { title: 'Hands and weather' },
    },
    { path: '/parts', name: 'needed', component: () => import('@/views/supply/Needed.vue'), meta: { title: 'Parts list' } },
    {
      path: '/parts/sourcing',
      name: 'sourcing',
      component: () => import('@/views/supply/Sourcing.vue'),
      meta: { title: 'Sourcing' },
    },
    { path: '/parts/orders', name: 'orders', component: () => import('@/views/supply/Orders.vue'), meta: { title: 'Orders' } },
    { path: '/parts/fit', name: 'fitting', component: () => import('@/views/supply/Fitting.vue'), meta: { title: 'Fit' } },
    { path: '/parts/stock', name: 'stock', component: () => import('@/views/supply/Stock.vue'), meta: { title: 'Stock' } },
    {
      path: '/parts/book',
      name: 'parts-book',
      component: () => import('@/views/supply/PartsBook.vue'),
      meta: { title: 'Parts book' },
    },
    {
      path: '/parts/suppliers',
      name: 'suppliers',
      component: () => import('@/views/supply/Suppliers.vue'),
      meta: { title: 'Suppliers and rates' },
    },
    { path: '/parts/cost', name: 'costs', component: () => import('@/views/supply/Costs.vue'), meta: { title: 'Cost' } },
    {
      path: '/waiting',
      name: 'waiting',
      component: () => import('@/views/waiting/Waiting.vue'),
      meta: { title: 'Not sent and not taken' },
    },
    { path: '/:rest(.*)', name: 'lost', component: () => import('@/views/Lost.vue'), meta: { title: 'Not found' } },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  if (!session.known) await session.load().catch(() => undefined)
  if (session.toFound && to.name !== 'found') return { name: 'found' }
  if (to.name === 'found' && session.known && !session.toFound) return { name: 'machines' }
  if (!to.meta.open && session.known && !session.me) return { name: 'sign-in', query: { next: to.fullPath } }
  // Where the shop wants a second factor, nothing opens before it is set up.
  if (!to.meta.open && session.me?.code_first && to.name !== 'account') return { name: 'account' }
  // An owner has one way through parts and orders: what they cost.
  if (session.onlyOwns && to.path.startsWith('/parts') && to.name !== 'costs') return { name: 'costs' }
  return true
})

router.afterEach((to, from, failure) => {
  if (failure) return
  // Within a screen the screen itself says what the window is called.
  if (to.name === from.name && to.params.id === from.params.id) return
  document.title = `${String(to.meta.title ?? '')} – Lumvek`
})
