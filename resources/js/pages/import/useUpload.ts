import { ApiError } from '@/api/client';
import type { Schemas } from '@/api/client';

/** Sends a file; the generated client is for JSON. */
export async function upload<T>(path: string, file: File): Promise<T> {
    const body = new FormData();
    body.set('file', file);
    const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN=')) ?? '';
    let answer: Response;
    try {
        answer = await fetch(path, {
            method: 'POST',
            body,
            headers: {
                Accept: 'application/json',
                'X-XSRF-TOKEN': decodeURIComponent(token.slice('XSRF-TOKEN='.length)),
            },
        });
    } catch {
        throw new ApiError(0, 'No connection', 'The server cannot be reached just now. The file was not sent.');
    }
    if (answer.ok) {
        return (await answer.json()) as T;
    }
    if (answer.status === 413) {
        throw new ApiError(413, 'Too large', 'The file is larger than 30 MB. Split it and send the parts.');
    }
    const problem = (await answer.json().catch(() => ({}))) as Partial<Schemas['Problem']>;
    throw new ApiError(
        answer.status,
        problem.title ?? 'Something went wrong here',
        problem.errors?.[0]?.detail ?? problem.detail ?? 'The file could not be taken.',
    );
}
