<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../shell/notices.svelte';
    import { install } from '../api/install';
    import DropPlace from './DropPlace.svelte';
    import { version } from './format';

    const queries = useQueryClient();
    const bring = createMutation(() => ({
        mutationFn: install.bringPackage,
        onSuccess: (p) => {
            notices.success(
                `This is the package of ${version(p.version)} (${p.build}). It is kept for every job that needs it.`,
            );
            void queries.invalidateQueries({ queryKey: ['packages'] });
        },
        onError: (e: Error) => void notices.error(e.message, { duration: 12_000 }),
    }));
    function choose(event: Event & { currentTarget: HTMLInputElement }) {
        const file = event.currentTarget.files?.[0];
        if (file !== undefined) bring.mutate(file);
        event.currentTarget.value = '';
    }
</script>

<DropPlace
    says="Let go: its digest says which build it is of; only a known package is kept."
    ontake={(f) => bring.mutate(f)}
>
    <label class="flex flex-col gap-1 text-sm"
        >Drop a package here, or bring a package in from a file; its digest says which build it is of<input
            class="field py-2"
            type="file"
            name="package"
            disabled={bring.isPending}
            onchange={choose}
        /></label
    >
</DropPlace>
{#if bring.isPending}<p class="text-sm text-quiet" role="status">Reading the file…</p>
{:else if bring.isError}<p class="rounded-md bg-amber-wash p-2 text-sm text-amber" role="alert">
        Not taken. {bring.error.message}
    </p>{/if}
