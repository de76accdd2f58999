import { useSession } from './composables/useSession';
import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
    history: createWebHistory(),
    routes: [
        {
            path: '/',
            redirect: (to) => ({
                name: useSession().session.value?.firstSteps === true ? 'first-month' : 'scorecard',
                query: to.query,
            }),
        },
        { path: '/register', name: 'register', component: () => import('./pages/register/RegisterPage.vue') },
        { path: '/register/new', name: 'define', component: () => import('./pages/register/KpiEditor.vue') },
        { path: '/register/lists', name: 'lists', component: () => import('./pages/register/ListsPage.vue') },
        { path: '/register/plan', name: 'plan', component: () => import('./pages/logbook/PlanPage.vue') },
        {
            path: '/register/import',
            name: 'import-definitions',
            component: () => import('./pages/register/DefinitionsPage.vue'),
        },
        {
            path: '/register/kpi/:code',
            name: 'kpi',
            component: () => import('./pages/register/KpiEditor.vue'),
            props: true,
        },
        { path: '/logbook', name: 'logbook', component: () => import('./pages/logbook/LogbookPage.vue') },
        { path: '/logbook/year', name: 'year-grid', component: () => import('./pages/logbook/YearGrid.vue') },
        { path: '/logbook/import', name: 'import', component: () => import('./pages/import/ImportPage.vue') },
        {
            path: '/scorecard',
            name: 'scorecard',
            component: () => import('./pages/review/scorecard/ScorecardPage.vue'),
        },
        { path: '/kpi/:code', name: 'course', component: () => import('./pages/review/kpi/KpiPage.vue') },
        {
            path: '/exceptions',
            name: 'exceptions',
            component: () => import('./pages/review/exceptions/ExceptionsPage.vue'),
        },
        { path: '/matrix', name: 'matrix', component: () => import('./pages/review/matrix/MatrixPage.vue') },
        { path: '/periods', name: 'periods', component: () => import('./pages/logbook/PeriodsPage.vue') },
        { path: '/changes', name: 'changes', component: () => import('./pages/trail/ChangesPage.vue') },
        { path: '/begin', name: 'begin', component: () => import('./pages/people/BeginPage.vue') },
        { path: '/enter', name: 'enter', component: () => import('./pages/people/EnterPage.vue') },
        { path: '/people', name: 'people', component: () => import('./pages/people/PeoplePage.vue') },
        {
            path: '/first-month',
            name: 'first-month',
            component: () => import('./pages/organisation/FirstMonthPage.vue'),
        },
        { path: '/units', name: 'units', component: () => import('./pages/organisation/UnitsPage.vue') },
        { path: '/components', name: 'components', component: () => import('./pages/gallery/GalleryPage.vue') },
        { path: '/:rest(.*)', name: 'nowhere', component: () => import('./NowherePage.vue') },
    ],
});
