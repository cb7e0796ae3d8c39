import createClient from 'openapi-fetch';
import { confirmation } from '../shell/confirmation.svelte';
import { faults } from '../shell/faults';
import { gate } from '../shell/gate';
import { focusNext } from '../shell/focus';
import { told } from '../parts/times.svelte';
import { connection } from '../shell/connection.svelte';
import { hands } from '../shell/hands';
import { notices } from '../shell/notices.svelte';
import type { paths } from './schema';
import type { Problem } from './types';

/** The server's refusal, or its silence, as one error with words that can be shown. */
export class ApiProblem extends Error {
    constructor(
        readonly code: string,
        readonly status: number,
        detail: string,
        readonly problem: Problem | null,
        /** Its words stand at the field that it is about. */
        readonly atField = false,
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

    static of(status: number, problem: Problem | undefined, form: HTMLFormElement | null = null): ApiProblem {
        const said = told(problem);
        const first = said?.errors?.[0]?.message;
        return new ApiProblem(
            problem?.code ?? 'http-error',
            status,
            first ?? said?.detail ?? 'The server refused without a reason.',
            said ?? null,
            said !== undefined && form !== null && form.isConnected && faults.show(form, said),
        );
    }
}

function cookie(name: string): string {
    const found = document.cookie.split('; ').find((c) => c.startsWith(`${name}=`));
    return found === undefined ? '' : decodeURIComponent(found.slice(name.length + 1));
}

/** Whether the server answers at all, and what it says that an act did. */
function heard(response: Response, acted: boolean): void {
    if (response.status === 502 || response.status === 503) connection.silent();
    else connection.answered(response.headers.get('X-Started'));
    if (acted) focusNext();
    const done = response.headers.get('X-Done');
    if (acted && response.ok && done !== null && !response.url.endsWith('/session'))
        notices.done(`${decodeURIComponent(done)}.`);
}

export const client = createClient<paths>({ baseUrl: '/api/v1', headers: { Accept: 'application/json' } });

/** Requests that may be sent once more, when the password that they want was given. */
const sent = new Map<string, Request>();
/** The forms from which requests went out, by their answers. */
const forms = new WeakMap<Response, HTMLFormElement>();
const formOf = new Map<string, HTMLFormElement>();

client.use({
    async onRequest({ request, id, schemaPath }) {
        if (hands.areStill) request.headers.set('X-By-Itself', '1');
        const form = faults.form();
        await gate.pass(id, schemaPath);
        request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
        if (request.method !== 'GET') {
            sent.set(id, request.clone());
            if (form !== null) formOf.set(id, form);
        }
        return request;
    },
    async onResponse({ response, id }) {
        gate.answered(id);
        const again = sent.get(id);
        sent.delete(id);
        heard(response, again !== undefined);
        const form = formOf.get(id);
        formOf.delete(id);
        if (form !== undefined) forms.set(response, form);
        if (response.status !== 403 || again === undefined) return response;
        const problem = (await response
            .clone()
            .json()
            .catch(() => null)) as Problem | null;
        if (problem?.code !== 'password-wanted' || !(await confirmation.ask())) return response;
        const repeated = await fetch(again);
        if (form !== undefined) forms.set(repeated, form);
        heard(repeated, true);
        return repeated;
    },
    onError({ id }) {
        gate.answered(id);
        sent.delete(id);
        formOf.delete(id);
    },
});

type Answer<T> = { data?: T; error?: Problem; response: Response };

/** Waits for a call and gives its data, or throws an ApiProblem. */
export async function take<T>(call: Promise<Answer<T>>): Promise<T> {
    let answer: Answer<T>;
    try {
        answer = await call;
    } catch {
        connection.silent();
        throw ApiProblem.silent();
    }
    if (!answer.response.ok) {
        throw ApiProblem.of(answer.response.status, answer.error, forms.get(answer.response) ?? null);
    }
    return told(answer.data as T);
}

/** A call whose body goes as it is, for instance a file. */
export async function raw(method: string, path: string, body: BodyInit, type: string): Promise<Response> {
    const answer = await fetch(`/api/v1${path}`, {
        method,
        body,
        headers: { Accept: 'application/json', 'Content-Type': type, 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') },
    }).catch(() => {
        connection.silent();
        throw ApiProblem.silent();
    });
    heard(answer, true);
    if (!answer.ok)
        throw ApiProblem.of(answer.status, (await answer.json().catch(() => undefined)) as Problem | undefined);
    return answer;
}
