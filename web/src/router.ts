import { createRouter, createWebHistory } from 'vue-router'
import TableStation from './stations/table/TableStation.vue'

/** The stations in their order; the digit keys go by it. */
export const stations = ['base', 'panels', 'check', 'sheets', 'machine', 'assembly'] as const

export type Station = (typeof stations)[number]

/** Where one is in an open card: at a station, or at the names that it is made for. */
export type Place = Station | 'names'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: TableStation },
    {
      path: '/cards/:id',
      component: () => import('./stations/CardPage.vue'),
      props: true,
      redirect: (to) => `/cards/${String(to.params.id)}/panels`,
      children: [
        { path: 'base', component: () => import('./stations/base/BaseStation.vue') },
        { path: 'panels', component: () => import('./stations/panels/PanelsPage.vue') },
        { path: 'names', component: () => import('./stations/names/NamesStation.vue') },
        { path: 'check', component: () => import('./stations/check/CheckStation.vue') },
        { path: 'sheets', component: () => import('./stations/sheets/SheetsStation.vue') },
        { path: 'assembly', component: () => import('./stations/assembly/AssemblyStation.vue') },
        { path: 'machine', component: () => import('./stations/machine/MachineStation.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
