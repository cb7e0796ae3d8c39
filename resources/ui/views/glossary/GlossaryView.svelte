<script lang="ts">
    import { TERM, TERM_MEANS } from '../../api/words';

    let find = $state('');
    const terms = $derived(
        (Object.keys(TERM) as (keyof typeof TERM)[])
            .filter((t) => `${TERM[t]} ${TERM_MEANS[t]}`.toLowerCase().includes(find.trim().toLowerCase()))
            .sort((a, b) => TERM[a].localeCompare(TERM[b])),
    );
</script>

<svelte:head><title>Glossary · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-4">
    <h1>Glossary</h1>
    <label class="flex-1"
        ><span class="sr-only">Find a term</span><input
            class="field w-full max-w-md"
            type="search"
            placeholder="Find a term"
            bind:value={find}
        /></label
    >
</div>
{#if terms.length === 0}<p class="text-quiet">No term has “{find.trim()}” in it.</p>{/if}
<dl class="grid gap-x-10 @4xl:grid-cols-2">
    {#each terms as t (t)}<div class="border-t border-edge py-2">
            <dt class="font-semibold first-letter:uppercase">{TERM[t]}</dt>
            <dd>{TERM_MEANS[t]}</dd>
        </div>{/each}
</dl>
