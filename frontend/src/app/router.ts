import { FAMILIES } from '@/api'
import { createRouter, createWebHistory } from 'vue-router'
import { HousePage } from '@/features/house'
import { SheetPage } from '@/features/sheet'


/** What stands in the address decides the page; an unknown family is a violin. */
function familyOf(value: unknown): string {
  return FAMILIES.find((family) => family === value) ?? 'violin'
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'house', component: HousePage },
    { path: '/bench/:ticket', name: 'bench', component: SheetPage, props: true },
    {
      path: '/bench/:ticket/recipe',
      name: 'recipe',
      component: () => import('@/features/recipes').then((feature) => feature.InstrumentRecipe),
      props: true,
    },
    {
      path: '/bench/:ticket/look',
      name: 'look',
      component: () => import('@/features/look').then((feature) => feature.LookPage),
      props: true,
    },
    {
      path: '/bench/:ticket/measure',
      name: 'measure',
      component: () => import('@/features/measuring').then((feature) => feature.MeasuringPage),
      props: true,
    },
    {
      path: '/bench/:ticket/page/:page',
      name: 'page',
      component: () => import('@/features/pages').then((feature) => feature.InstrumentPage),
      props: true,
    },
    {
      path: '/bench/:ticket/sound',
      name: 'sound',
      component: () => import('@/features/sound').then((feature) => feature.SoundPage),
      props: true,
    },
    {
      path: '/bench/:ticket/plan',
      name: 'plan',
      component: () => import('@/features/plan').then((feature) => feature.PlanPage),
      props: true,
    },
    {
      path: '/bench/:ticket/billing',
      name: 'billing',
      component: () => import('@/features/billing').then((feature) => feature.BillingPage),
      props: true,
    },
    {
      path: '/bench/:ticket/billing/:document',
      name: 'document',
      component: () => import('@/features/billing').then((feature) => feature.DocumentPage),
      props: true,
    },
    {
      path: '/bench/:ticket/history',
      name: 'history',
      component: () => import('@/features/history').then((feature) => feature.HistoryPage),
      props: true,
    },
    {
      path: '/bench/:ticket/damage',
      name: 'damage',
      component: () => import('@/features/damage').then((feature) => feature.DamagePage),
      props: true,
    },
    {
      path: '/bench/:ticket/belongings',
      name: 'belongings',
      component: () => import('@/features/belongings').then((feature) => feature.BelongingsPage),
      props: true,
    },
    {
      path: '/bench/:ticket/leave',
      name: 'leave',
      component: () => import('@/features/leaving').then((feature) => feature.LeavingPage),
      props: true,
    },
    { path: '/ask', name: 'ask', component: () => import('@/features/ask').then((feature) => feature.AskPage) },
    { path: '/archives', name: 'archives', component: () => import('@/features/archives').then((feature) => feature.ArchivesPage) },
    {
      path: '/closing-points',
      name: 'closing-points',
      component: () => import('@/features/leaving').then((feature) => feature.ShopPoints),
    },
    {
      path: '/bench/:ticket/estimate',
      name: 'estimate',
      component: () => import('@/features/plan').then((feature) => feature.EstimatePaper),
      props: true,
    },
    {
      path: '/fleet/:owner/estimate',
      name: 'fleet-estimate',
      component: () => import('@/features/plan').then((feature) => feature.FleetEstimate),
      props: true,
    },
    {
      path: '/drawers/:tab?',
      name: 'drawers',
      component: () => import('@/features/drawers').then((feature) => feature.DrawersPage),
      props: (route) => ({ tab: String(route.params.tab ?? ''), kind: String(route.query.kind ?? '') }),
    },
    {
      path: '/bench/:ticket/paper/:kind?',
      name: 'paper',
      component: () => import('@/features/papers').then((feature) => feature.PapersPage),
      props: (route) => ({ ticket: String(route.params.ticket), kind: String(route.params.kind ?? '') }),
    },
    {
      path: '/bench/:ticket/working-sheet',
      name: 'working-sheet',
      component: () => import('@/features/papers').then((feature) => feature.PaperSheet),
      props: true,
    },
    {
      path: '/bench/:ticket/blank',
      name: 'blank',
      component: () => import('@/features/papers').then((feature) => feature.BlankCard),
      props: true,
    },
    {
      path: '/recipes/:family?',
      name: 'recipes',
      component: () => import('@/features/recipes').then((feature) => feature.RecipesPage),
      props: (route) => ({ family: familyOf(route.params.family) }),
    },
    {
      path: '/figures/:family?',
      name: 'figures',
      component: () => import('@/features/figures').then((feature) => feature.FiguresPage),
      props: (route) => ({ family: familyOf(route.params.family), size: String(route.query.size ?? '') }),
    },
    {
      path: '/screening',
      name: 'screening',
      component: () => import('@/features/screening').then((feature) => feature.ScreeningPage),
      props: (route) => ({ of: String(route.query.of ?? '') }),
    },
    {
      path: '/audit/:ticket?',
      name: 'audit',
      component: () => import('@/features/audit').then((feature) => feature.AuditPage),
      props: (route) => ({ ticket: String(route.params.ticket ?? '') }),
    },
    { path: '/people', name: 'people', component: () => import('@/features/people/away').then((feature) => feature.PeoplePage) },
    { path: '/:rest(.*)*', redirect: { name: 'house' } },
  ],
})
