import { createRouter, createWebHistory } from 'vue-router'
import { EmptyBench, SheetPage } from '@/features/sheet'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'house', component: EmptyBench },
    { path: '/bench/:ticket', name: 'bench', component: SheetPage, props: true },
    { path: '/:rest(.*)*', redirect: { name: 'house' } },
  ],
})
