import { ApiError } from '@/api/client';

/** Saves a file that the server makes, or says why it could not. */
export async function save(path: string, query: Record<string, string>, name: string): Promise<void> {
    let answer: Response;
    try {
        answer = await fetch(`${path}?${new URLSearchParams(query).toString()}`, {
            headers: { Accept: 'application/json' },
        });
    } catch {
        throw new ApiError(0, 'No connection', 'The server cannot be reached just now.');
    }
    if (!answer.ok) {
        const problem = (await answer.json().catch(() => ({}))) as {
            title?: string;
            detail?: string;
            errors?: { detail: string }[];
        };
        throw new ApiError(
            answer.status,
            problem.title ?? '',
            problem.errors?.[0]?.detail ?? problem.detail ?? 'The server could not finish this.',
        );
    }
    saveBlob(await answer.blob(), name);
}

export function saveBlob(blob: Blob, name: string): void {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(blob);
    link.download = name;
    link.click();
    window.setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
