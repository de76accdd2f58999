import { useSession } from './composables/useSession';
import { createRouter, createWebHistory } from 'vue-router';

/** What opens first: the first steps, the scorecard, or for who only administers, the people. */
function home(): string {
    const { session } = useSession();
    return session.value?.firstSteps === true
        ? 'first-month'
        : session.value?.units.length === 0 && session.value.user?.administers === true
          ? 'people'
          : 'scorecard';
}

export const router = createRouter({
    history: createWebHistory(),
    routes: [
        {
            path: '/',
            redirect: (to) => ({
                name: home(),
                query: to.query,
            }),
        },
        { path: '/register', name: 'register', component: () => import('./pages/register/RegisterPage.vue') },
        { path: '/register/new', name: 'define', component: () => import('./pages/register/KpiEditor.vue') },
        { path: '/register/begin', name: 'starters', component: () => import('./pages/register/StartersPage.vue') },
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
        { path: '/compare', name: 'compare', component: () => import('./pages/review/compare/ComparePage.vue') },
        { path: '/briefings', name: 'briefings', component: () => import('./pages/briefings/BriefingsPage.vue') },
        {
            path: '/briefings/:code',
            name: 'briefing',
            props: true,
            component: () => import('./pages/briefings/BriefingPage.vue'),
        },
        { path: '/matrix', name: 'matrix', component: () => import('./pages/review/matrix/MatrixPage.vue') },
        { path: '/periods', name: 'periods', component: () => import('./pages/logbook/PeriodsPage.vue') },
        { path: '/sources', name: 'sources', component: () => import('./pages/sources/SourcesPage.vue') },
        { path: '/sources/new', name: 'source-new', component: () => import('./pages/sources/NewSource.vue') },
        {
            path: '/sources/:code',
            name: 'source',
            props: true,
            component: () => import('./pages/sources/SourcePage.vue'),
        },
        { path: '/changes', name: 'changes', component: () => import('./pages/trail/ChangesPage.vue') },
        { path: '/read', name: 'read', component: () => import('./pages/briefings/ReadPage.vue') },
        { path: '/begin', name: 'begin', component: () => import('./pages/people/BeginPage.vue') },
        { path: '/enter', name: 'enter', component: () => import('./pages/people/EnterPage.vue') },
        {
            path: '/people',
            name: 'people',
            meta: { timeless: true },
            component: () => import('./pages/people/PeoplePage.vue'),
        },
        {
            path: '/account',
            name: 'account',
            meta: { timeless: true },
            component: () => import('./pages/people/AccountPage.vue'),
        },
        {
            path: '/first-month',
            name: 'first-month',
            component: () => import('./pages/organisation/FirstMonthPage.vue'),
        },
        {
            path: '/units',
            name: 'units',
            meta: { timeless: true },
            component: () => import('./pages/organisation/UnitsPage.vue'),
        },
        {
            path: '/units/:code',
            name: 'unit',
            props: true,
            meta: { timeless: true },
            component: () => import('./pages/organisation/UnitPage.vue'),
        },
        {
            path: '/settings',
            name: 'settings',
            meta: { timeless: true },
            component: () => import('./pages/settings/SettingsPage.vue'),
        },
        {
            path: '/programs',
            name: 'programs',
            meta: { timeless: true },
            component: () => import('./pages/settings/ProgramsPage.vue'),
        },
        {
            path: '/settings/workbook',
            name: 'book',
            meta: { timeless: true },
            component: () => import('./pages/settings/BookPage.vue'),
        },
        { path: '/components', name: 'components', component: () => import('./pages/gallery/GalleryPage.vue') },
        { path: '/:rest(.*)', name: 'nowhere', component: () => import('./NowherePage.vue') },
    ],
});
