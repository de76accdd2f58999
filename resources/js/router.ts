import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
    history: createWebHistory(),
    routes: [
        { path: '/', redirect: (to) => ({ name: 'scorecard', query: to.query }) },
        { path: '/register', name: 'register', component: () => import('./pages/register/RegisterPage.vue') },
        { path: '/register/new', name: 'define', component: () => import('./pages/register/KpiEditor.vue') },
        {
            path: '/register/:code',
            name: 'kpi',
            component: () => import('./pages/register/KpiEditor.vue'),
            props: true,
        },
        { path: '/logbook', name: 'logbook', component: () => import('./pages/logbook/LogbookPage.vue') },
        { path: '/scorecard', name: 'scorecard', component: () => import('./pages/scorecard/ScorecardPage.vue') },
        { path: '/:rest(.*)', name: 'nowhere', component: () => import('./pages/NowherePage.vue') },
    ],
});
