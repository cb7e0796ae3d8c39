<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { access } from '../../api/access';
    import type { PersonEntry } from '../../api/types';
    import Ask from '../../parts/Ask.svelte';
    import { dayAndClock } from '../../parts/format';
    import { session } from '../../shell/session.svelte';

    const ROLES: PersonEntry['role'][] = ['viewer', 'technician', 'lead'];
    const queries = useQueryClient();
    const tokens = createQuery(() => ({ queryKey: ['tokens'], queryFn: access.tokens }));
    const again = () => queries.invalidateQueries({ queryKey: ['tokens'] });
    const roles = $derived(ROLES.slice(0, ROLES.indexOf(session.person?.role ?? 'viewer') + 1));
    let wish = $state({ name: '', role: 'viewer' as PersonEntry['role'], days: 90 });
    let shown = $state<string | null>(null);
    const make = createMutation(() => ({
        mutationFn: () => access.makeToken(wish.name, wish.role, wish.days),
        onSuccess: (made) => {
            shown = made.token;
            wish = { name: '', role: 'viewer', days: 90 };
            void again();
        },
        onError: (e: Error) => notices.refused(e),
    }));
    let ending = $state<number | null>(null);
    const end = createMutation(() => ({
        mutationFn: access.endToken,
        onSuccess: again,
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<section class="panel" aria-labelledby="tokens">
    <h2 id="tokens" class="mb-1">Your tokens for scripts</h2>
    <p class="text-sm text-quiet">
        A script that has one asks in your name, with the role that you give it, until its day is over. People, keys and
        sealed copies it cannot touch. <a class="underline" href="/reference">What can be asked</a>.
    </p>
    <ul class="mt-1 text-sm">
        {#each tokens.data?.tokens ?? [] as t (t.id)}
            <li class="flex items-center gap-3 border-t border-edge py-1.5" data-token={t.name}>
                <span class="flex-1"
                    ><span class="font-semibold">{t.name}</span> <span class="text-quiet">{t.role}</span></span
                ><span class="text-quiet"
                    >{t.lastUsedAt === null ? 'never used' : `last used ${dayAndClock(t.lastUsedAt)}`}{t.until === null
                        ? ''
                        : `, until ${dayAndClock(t.until)}`}</span
                ><button class="act-quiet !min-h-8" onclick={() => (ending = t.id)}>End it</button>
            </li>
        {/each}
    </ul>
    <Ask
        open={ending !== null}
        title="End this token?"
        yes="End it"
        no="Keep it"
        onyes={() => ending !== null && end.mutate(ending)}
        onno={() => (ending = null)}>Scripts that have it are turned away from now on.</Ask
    >
    {#if shown !== null}<div class="mt-2 rounded-md bg-jade-wash p-3 text-sm text-jade-strong" role="status">
            <p>This is the token. It is shown this once:</p>
            <p class="font-mono break-all" data-shown>{shown}</p>
            <button class="act-quiet mt-2 !min-h-8" onclick={() => (shown = null)}>I have it</button>
        </div>{/if}
    <form
        class="mt-2 flex flex-wrap items-end gap-2 border-t border-edge pt-2 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            make.mutate();
        }}
    >
        <label class="flex flex-col"
            >What it is for<input
                class="field !min-h-10"
                name="name"
                required
                maxlength="100"
                bind:value={wish.name}
            /></label
        >
        <label class="flex flex-col"
            >Role<select class="field !min-h-10" bind:value={wish.role}
                >{#each roles as r (r)}<option value={r}>{r}</option>{/each}</select
            ></label
        >
        <label class="flex flex-col"
            >Days<input
                class="field !min-h-10 w-24"
                type="number"
                min="1"
                max="366"
                required
                bind:value={wish.days}
            /></label
        >
        <button class="act" disabled={make.isPending}>Make a token</button>
    </form>
</section>
