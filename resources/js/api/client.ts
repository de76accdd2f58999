import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Status = Schemas['Status'];
export type Shown = Schemas['Shown'];
export type Span = Schemas['ScorecardPage']['span'];

/** A request that came back with a problem, or did not come back at all (status 0). */
export class ApiError extends Error {
    constructor(
        readonly status: number,
        readonly title: string,
        readonly detail: string,
        readonly fields: Record<string, string> = {},
        readonly current: {
            text: string;
            outlook?: string;
            doing?: string;
            parts?: Record<string, string>;
            version: number;
            by: string;
        } | null = null,
    ) {
        super(detail);
    }

    /** The server was not reached: what was typed is worth sending again. */
    get isOffline(): boolean {
        return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
    }
}

const forgeryProtection: Middleware = {
    onRequest({ request }) {
        request.headers.set('Accept', 'application/json');
        // Asking for the cookies makes the page wait, and only a change needs the token.
        if (request.method === 'GET') {
            return request;
        }
        const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='));
        if (token !== undefined) {
            request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token.slice('XSRF-TOKEN='.length)));
        }
        return request;
    },
};

const client = createClient<paths>({ baseUrl: '/', credentials: 'same-origin' });
client.use(forgeryProtection);

let onSignedOut: () => void = () => undefined;

/** Called when the server says that nobody is signed in any longer. */
export function whenSignedOut(callback: () => void): void {
    onSignedOut = callback;
}

type Problem = Partial<Schemas['Problem']>;

/** The data of an answer, or an {@link ApiError} that says what happened in words. */
export async function read<T>(request: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
    let answer;
    try {
        answer = await request;
    } catch {
        throw new ApiError(0, 'No connection', 'The server cannot be reached just now.');
    }
    if (answer.response.ok) {
        return answer.data as T;
    }
    const problem: Problem = typeof answer.error === 'object' && answer.error !== null ? answer.error : {};
    if (answer.response.status === 401 || answer.response.status === 419) {
        onSignedOut();
    }
    throw new ApiError(
        answer.response.status,
        problem.title ?? 'Something went wrong here',
        // What is too large is refused before it reaches the application, which would say so itself.
        answer.response.status === 413
            ? 'The file is larger than 30 MB. Split it and send the parts.'
            : (problem.detail ?? 'The server could not finish this. Nothing was saved.'),
        Object.fromEntries((problem.errors ?? []).map((field) => [field.pointer, field.detail])),
        (problem.current ?? null) as ApiError['current'],
    );
}

/** A request whose body is a file. */
export const ofFile = (file: File) => ({
    body: { file: file.name },
    bodySerializer: () => {
        const form = new FormData();
        form.set('file', file);
        return form;
    },
});

export const api = client;
