<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { access } from '../../api/access';
    import { ApiProblem } from '../../api/client';
    import { shelf } from '../../api/shelf';
    import type { PersonEntry } from '../../api/types';
    import Ask from '../../parts/Ask.svelte';
    import { dayAndClock } from '../../parts/format';
    import { session } from '../../shell/session.svelte';

    const ROLES: PersonEntry['role'][] = ['viewer', 'technician', 'lead'];
    const queries = useQueryClient();
    const people = createQuery(() => ({ queryKey: ['people'], queryFn: shelf.people }));
    const done = {
        onSuccess: () => void queries.invalidateQueries({ queryKey: ['people'] }),
        onError: (e: Error) => void (notices.error(e.message), queries.invalidateQueries({ queryKey: ['people'] })),
    };
    const change = createMutation(() => ({
        mutationFn: (p: PersonEntry) => shelf.changePerson(p.id, { name: p.name, email: p.email, role: p.role }),
        ...done,
    }));
    let leaving = $state<PersonEntry | null>(null);
    const remove = createMutation(() => ({
        mutationFn: (p: PersonEntry) => shelf.removePerson(p.id),
        onSuccess: (_: unknown, p: PersonEntry) => {
            done.onSuccess();
            notices.offerUndo(`${p.name} was removed, and is signed out everywhere.`, {
                label: 'Have them back',
                run: () => restore.mutateAsync(p.id),
            });
        },
        onError: done.onError,
    }));
    const restore = createMutation(() => ({ mutationFn: shelf.restorePerson, ...done }));
    const noFactor = createMutation(() => ({ mutationFn: access.removeSecondFactorOf, ...done }));
    let given = $state<{ name: string; link: string; until: string } | null>(null);
    const give = createMutation(() => ({
        mutationFn: async (p: PersonEntry) => ({ name: p.name, ...(await access.giveLink(p.id)) }),
        onSuccess: (link) => void (given = link),
        onError: done.onError,
    }));
    const rules = createQuery(() => ({ queryKey: ['access'], queryFn: access.rules }));
    const demand = createMutation(() => ({
        mutationFn: access.setRules,
        onSettled: () => Promise.all([queries.invalidateQueries({ queryKey: ['access'] }), session.look()]),
        onError: done.onError,
    }));
    let fresh = $state({ name: '', email: '', role: 'technician' as PersonEntry['role'], password: '' });
    const add = createMutation(() => ({
        mutationFn: () => shelf.addPerson(fresh),
        onSuccess: () => {
            fresh = { name: '', email: '', role: 'technician', password: '' };
            done.onSuccess();
        },
        onError: (e: Error) => {
            if (!(e instanceof ApiProblem && e.atField)) done.onError(e);
        },
    }));
</script>

<section class="panel" aria-labelledby="people">
    <h2 id="people" class="mb-2">People</h2>
    <ul>
        {#each people.data?.people ?? [] as p (p.id)}
            <li class="flex items-center gap-3 border-t border-edge py-1.5" data-person={p.email}>
                <span class="flex-1"
                    ><span class="font-semibold">{p.name}</span> <span class="text-sm text-quiet">{p.email}</span></span
                >
                <select
                    class="field !min-h-9"
                    aria-label="Role of {p.name}"
                    value={p.role}
                    onchange={(e) => change.mutate({ ...p, role: e.currentTarget.value as PersonEntry['role'] })}
                    >{#each ROLES as r (r)}<option value={r}>{r}</option>{/each}</select
                >
                <span class="text-sm text-quiet">{p.secondFactor ? 'with a second factor' : 'password alone'}</span>
                {#if p.secondFactor}<button class="act-quiet !min-h-9" onclick={() => noFactor.mutate(p.id)}
                        >Take the second factor away</button
                    >{/if}
                <button class="act-quiet !min-h-9" onclick={() => give.mutate(p)}>Link for a new password</button>
                <button class="act-quiet !min-h-9" onclick={() => (leaving = p)}>Remove</button>
            </li>
        {/each}
    </ul>
    {#if (people.data?.removed.length ?? 0) > 0}<div class="border-t border-edge py-2 text-sm">
            <p class="text-quiet">Removed within the last day:</p>
            {#each people.data?.removed ?? [] as p (p.id)}<p class="flex items-center gap-3" data-removed={p.email}>
                    <span class="flex-1">{p.name} <span class="text-quiet">{p.email}</span></span><button
                        class="act-quiet !min-h-9"
                        disabled={restore.isPending}
                        onclick={() => restore.mutate(p.id)}>Have them back</button
                    >
                </p>{/each}
        </div>{/if}
    {#if given !== null}<div class="mt-2 rounded-md bg-jade-wash p-3 text-sm text-jade-strong" role="status">
            <p>
                For {given.name}: with this link a new password is set, once, until {dayAndClock(given.until)}. It is
                shown this once; give it to nobody else.
            </p>
            <p class="font-mono break-all" data-link>{given.link}</p>
            <button class="act-quiet mt-2 !min-h-8" onclick={() => (given = null)}>I have it</button>
        </div>{/if}
    <label class="mt-2 flex items-center gap-2 border-t border-edge pt-2 text-sm"
        ><input
            type="checkbox"
            class="h-4 w-4 accent-[var(--jade)]"
            checked={rules.data?.leadsNeedSecondFactor ?? false}
            onclick={(e) => {
                e.preventDefault(); // it shows what counts, once that is known
                demand.mutate(!(rules.data?.leadsNeedSecondFactor ?? false));
            }}
        />leads sign in with a second factor</label
    >
    <Ask
        open={leaving !== null}
        title="Remove {leaving?.name ?? ''}?"
        yes="Remove them"
        no="Keep them"
        busy={remove.isPending}
        onyes={() => leaving !== null && remove.mutate(leaving)}
        onno={() => (leaving = null)}
        >They are signed out everywhere at once. Their jobs stay, and they can be had back for a day.</Ask
    >
    <form
        class="mt-3 flex flex-wrap items-end gap-2 border-t border-edge pt-3 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            add.mutate();
        }}
    >
        <label class="flex flex-col"
            >Name<input class="field !min-h-10" name="name" required bind:value={fresh.name} /></label
        ><label class="flex flex-col"
            >Address<input class="field !min-h-10" name="email" type="email" required bind:value={fresh.email} /></label
        >
        <label class="flex flex-col"
            >Role<select class="field !min-h-10" bind:value={fresh.role}
                >{#each ROLES as r (r)}<option value={r}>{r}</option>{/each}</select
            ></label
        >
        <label class="flex flex-col"
            >Password, at least 12 characters<input
                class="field !min-h-10"
                type="password"
                name="password"
                autocomplete="new-password"
                minlength="12"
                required
                bind:value={fresh.password}
            /></label
        >
        <button class="act" disabled={add.isPending}>Add</button>
    </form>
</section>
