// A person at the API, for drills: signs in, keeps the session, tells what came back.
export class Person {
    cookies = new Map();

    constructor(base) {
        this.base = base;
    }

    static async signIn(base, email) {
        const person = new Person(base);
        const answer = await person.send('POST', '/api/session', { email, password: 'ostermere' });
        if (answer.status !== 200) {
            throw new Error(`${email} cannot sign in: ${answer.status} ${answer.text}`);
        }
        return person;
    }

    /** Never throws: a server that is away has status 0. */
    async send(method, path, body, headers = {}) {
        const began = performance.now();
        const token = this.cookies.get('XSRF-TOKEN');
        try {
            const answer = await fetch(this.base + path, {
                method,
                redirect: 'manual',
                signal: AbortSignal.timeout(30_000),
                headers: {
                    Accept: 'application/json',
                    Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
                    ...(token === undefined ? {} : { 'X-XSRF-TOKEN': decodeURIComponent(token) }),
                    ...(body === undefined || body instanceof FormData ? {} : { 'Content-Type': 'application/json' }),
                    ...headers,
                },
                body:
                    body === undefined ||
                    body instanceof FormData ||
                    typeof body === 'string' ||
                    body instanceof Uint8Array
                        ? body
                        : JSON.stringify(body),
            });
            for (const cookie of answer.headers.getSetCookie()) {
                const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie) ?? [];
                if (name !== undefined) {
                    this.cookies.set(name, value);
                }
            }
            const text = await answer.text();
            return {
                status: answer.status,
                text,
                type: answer.headers.get('Content-Type') ?? '',
                ms: performance.now() - began,
            };
        } catch (problem) {
            return { status: 0, text: String(problem), type: '', ms: performance.now() - began };
        }
    }

    async json(method, path, body) {
        const answer = await this.send(method, path, body);
        return {
            ...answer,
            data: answer.status >= 200 && answer.status < 300 && answer.text !== '' ? JSON.parse(answer.text) : null,
        };
    }
}

export const pause = (ms) => new Promise((done) => setTimeout(done, ms));
export const any = (list) => list[Math.floor(Math.random() * list.length)];
