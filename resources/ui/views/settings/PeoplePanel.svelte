<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { toast } from 'svelte-sonner';
    import { shelf } from '../../api/shelf';
    import type { PersonEntry } from '../../api/types';

    const ROLES: PersonEntry['role'][] = ['viewer', 'technician', 'lead'];
    const queries = useQueryClient();
    const people = createQuery(() => ({ queryKey: ['people'], queryFn: shelf.people }));
    const done = {
        onSuccess: () => void queries.invalidateQueries({ queryKey: ['people'] }),
        onError: (e: Error) => void (toast.error(e.message), queries.invalidateQueries({ queryKey: ['people'] })),
    };
    const change = createMutation(() => ({
        mutationFn: (p: PersonEntry) => shelf.changePerson(p.id, { name: p.name, email: p.email, role: p.role }),
        ...done,
    }));
    const remove = createMutation(() => ({ mutationFn: shelf.removePerson, ...done }));
    let fresh = $state({ name: '', email: '', role: 'technician' as PersonEntry['role'], password: '' });
    const add = createMutation(() => ({
        mutationFn: () => shelf.addPerson(fresh),
        onSuccess: () => {
            fresh = { name: '', email: '', role: 'technician', password: '' };
            done.onSuccess();
        },
        onError: done.onError,
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
                <button class="act-quiet !min-h-9" onclick={() => remove.mutate(p.id)}>Remove</button>
            </li>
        {/each}
    </ul>
    <form
        class="mt-3 flex flex-wrap items-end gap-2 border-t border-edge pt-3 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            add.mutate();
        }}
    >
        <label class="flex flex-col">Name<input class="field !min-h-10" required bind:value={fresh.name} /></label
        ><label class="flex flex-col"
            >Address<input class="field !min-h-10" type="email" required bind:value={fresh.email} /></label
        >
        <label class="flex flex-col"
            >Role<select class="field !min-h-10" bind:value={fresh.role}
                >{#each ROLES as r (r)}<option value={r}>{r}</option>{/each}</select
            ></label
        >
        <label class="flex flex-col"
            >Password, at least 10 characters<input
                class="field !min-h-10"
                type="password"
                autocomplete="new-password"
                minlength="10"
                required
                bind:value={fresh.password}
            /></label
        >
        <button class="act" disabled={add.isPending}>Add</button>
    </form>
</section>
