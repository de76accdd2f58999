import { api, type Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import axe from 'axe-core';
import { afterEach, beforeEach, expect } from 'vitest';
import { h, type Component } from 'vue';
import { createMemoryHistory, createRouter, RouterView, type Router } from 'vue-router';

/* Components as they stand in the page, with a server of a few lines. */

interface Asked {
    method: string;
    path: string;
    body: unknown;
    query: Record<string, unknown>;
}
type Reply = (asked: Asked) => unknown;

export class Problem {
    constructor(
        readonly status: number,
        readonly detail: string,
        readonly errors: { pointer: string; detail: string }[] = [],
    ) {}
}

/** What the server was asked, in this order. */
export let asked: Asked[] = [];
let replies: Record<string, Reply> = {};
let mounted: VueWrapper[] = [];

const SESSION = {
    user: { name: 'Ines Kallweit', email: 'analyst@ostermere.example', unit: 'NET', defines: true, role: 'analyst', locale: 'en-GB' },
    period: '2026-08',
    startMonth: 4,
    units: [
        { code: 'OST', name: 'Ostermere Water', kind: 'organisation', parent: null },
        { code: 'NET', name: 'Network', kind: 'department', parent: 'OST' },
        { code: 'WST', name: 'Waste', kind: 'department', parent: 'OST' },
    ],
}; // prettier-ignore

/** What the server says to a request, such as `GET /api/kpis`. */
export function answer(request: string, reply: Reply): void {
    replies[request] = reply;
}

beforeEach(async () => {
    asked = [];
    replies = { 'GET /api/session': () => SESSION };
    for (const method of ['GET', 'POST', 'PUT', 'PATCH', 'DELETE']) {
        Object.assign(api, {
            [method]: (
                path: string,
                options: { body?: unknown; params?: { query?: Record<string, unknown> } } = {},
            ) => {
                const request = { method, path, body: options.body, query: options.params?.query ?? {} };
                asked.push(request);
                const reply = replies[`${method} ${path}`]?.(request);
                return reply instanceof Error
                    ? Promise.reject(reply)
                    : reply instanceof Problem
                      ? Promise.resolve({ error: reply, response: { ok: false, status: reply.status } })
                      : Promise.resolve({ data: reply, response: { ok: true, status: 200 } });
            },
        });
    }
    await useSession().load();
    asked = [];
});

afterEach(() => {
    mounted.forEach((each) => {
        each.unmount();
    });
    mounted = [];
    document.body.innerHTML = '';
});

export interface Placed {
    wrapper: VueWrapper;
    router: Router;
}

const SCREENS = ['scorecard', 'exceptions', 'matrix', 'logbook', 'year-grid', 'register', 'periods', 'changes', 'define', 'lists', 'plan', 'import', 'course', 'kpi']; // prettier-ignore

async function mountedAt(
    root: Component,
    props: Record<string, unknown>,
    address: string,
    page: Component,
): Promise<Placed> {
    const router = createRouter({
        history: createMemoryHistory(),
        routes: SCREENS.map((name) => ({
            name,
            path: ['course', 'kpi'].includes(name) ? `/${name}/:code` : `/${name}`,
            component: page,
        })),
    });
    await router.push(address);
    const queryClient = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    const wrapper = mount(root, {
        props,
        attachTo: document.body,
        global: { plugins: [router, [VueQueryPlugin, { queryClient }]] },
    });
    mounted.push(wrapper);
    await flushPromises();
    return { wrapper, router };
}

/** Mounts a component on a screen, and waits until what it asked for has come. */
export const place = (
    component: Component,
    props: Record<string, unknown> = {},
    address = '/scorecard?unit=NET&period=2026-08',
): Promise<Placed> => mountedAt(component, props, address, () => h('div'));

/** Opens a screen at its address. */
export const visit = (page: Component, address: string): Promise<Placed> =>
    mountedAt(() => h('main', [h(RouterView)]), {}, address, page);

/** Waits for what is done a moment after typing, and for its answer. */
export async function soon(milliseconds = 260): Promise<void> {
    await new Promise((done) => setTimeout(done, milliseconds));
    await flushPromises();
}

/** Roles, names and states as axe sees them; colours need a real page and are looked at there. */
export async function expectSound(element: Element): Promise<void> {
    const { violations } = await axe.run(element, {
        resultTypes: ['violations'],
        runOnly: ['wcag2a', 'wcag21a', 'wcag22a'],
        rules: { 'color-contrast': { enabled: false } },
    });
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`)).toEqual([]);
}

export const shown = (digits: string): Schemas['Shown'] => ({ exact: digits, digits, suffix: '' });

/** What a field has been given back. */
export const valueOf = (wrapper: VueWrapper): unknown => (wrapper.props() as Record<string, unknown>)['modelValue'];
