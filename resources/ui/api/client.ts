import createClient from 'openapi-fetch';
import { confirmation } from '../shell/confirmation.svelte';
import { hands } from '../shell/hands';
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

/** Requests that may be sent once more, when the password that they want was given. */
const sent = new Map<string, Request>();

client.use({
    onRequest({ request, id }) {
        request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
        if (hands.areStill) request.headers.set('X-By-Itself', '1');
        if (request.method !== 'GET') sent.set(id, request.clone());
        return request;
    },
    async onResponse({ response, id }) {
        const again = sent.get(id);
        sent.delete(id);
        if (response.status !== 403 || again === undefined) return response;
        const problem = (await response
            .clone()
            .json()
            .catch(() => null)) as Problem | null;
        return problem?.code === 'password-wanted' && (await confirmation.ask()) ? fetch(again) : response;
    },
    onError({ id }) {
        sent.delete(id);
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
