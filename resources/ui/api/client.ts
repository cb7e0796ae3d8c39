import createClient from 'openapi-fetch';
import type { paths } from './schema';
import type { Problem } from './types';

/** The server's refusal, or its silence, as one error with words that can be shown. */
export class ApiProblem extends Error {
    constructor(
        readonly code: string,
        readonly status: number,
        detail: string,
        readonly problem: Problem | null,
    ) {
        super(detail);
    }

    static silent(): ApiProblem {
        return new ApiProblem(
            'silent',
            0,
            'The server does not answer. What you see may be old; it is asked again by itself.',
            null,
        );
    }

    static of(status: number, problem: Problem | undefined): ApiProblem {
        const first = problem?.errors?.[0]?.message;
        return new ApiProblem(
            problem?.code ?? 'http-error',
            status,
            first ?? problem?.detail ?? 'The server refused without a reason.',
            problem ?? null,
        );
    }
}

function cookie(name: string): string {
    const found = document.cookie.split('; ').find((c) => c.startsWith(`${name}=`));
    return found === undefined ? '' : decodeURIComponent(found.slice(name.length + 1));
}

export const client = createClient<paths>({ baseUrl: '/api/v1', headers: { Accept: 'application/json' } });

client.use({
    onRequest({ request }) {
        request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
        return request;
    },
});

type Answer<T> = { data?: T; error?: Problem; response: Response };

/** Waits for a call and gives its data, or throws an ApiProblem. */
export async function take<T>(call: Promise<Answer<T>>): Promise<T> {
    let answer: Answer<T>;
    try {
        answer = await call;
    } catch {
        throw ApiProblem.silent();
    }
    if (!answer.response.ok) {
        throw ApiProblem.of(answer.response.status, answer.error);
    }
    return answer.data as T;
}

/** The session's cookie and token, which every writing call needs. */
export async function openSession(): Promise<void> {
    await take(
        fetch('/sanctum/csrf-cookie', { headers: { Accept: 'application/json' } }).then((response) => ({ response })),
    );
}

/** A call whose body goes as it is, for instance a file. */
export async function raw(method: string, path: string, body: BodyInit, type: string): Promise<Response> {
    const answer = await fetch(`/api/v1${path}`, {
        method,
        body,
        headers: { Accept: 'application/json', 'Content-Type': type, 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') },
    }).catch(() => {
        throw ApiProblem.silent();
    });
    if (!answer.ok)
        throw ApiProblem.of(answer.status, (await answer.json().catch(() => undefined)) as Problem | undefined);
    return answer;
}
