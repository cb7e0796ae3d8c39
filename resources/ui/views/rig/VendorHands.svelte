<script lang="ts">
    import { rig } from '../../api/install';
    import type { PracticeVendor } from '../../api/types';
    import { version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { practiceAct } from './hands.svelte';

    let { vendor, mayAct }: { vendor: { id: string; name: string; practice: PracticeVendor | null }; mayAct: boolean } =
        $props();
    const set = practiceAct((body: Record<string, unknown>) => rig.vendor(vendor.id, body));
    const clear = practiceAct(() => rig.clearVendor(vendor.id));
    const p = $derived(vendor.practice);
    const refused = (build: string) => p?.refused.includes(build) ?? false;
    const toggleRefused = (build: string) =>
        set.mutate({
            refused: refused(build) ? p?.refused.filter((b) => b !== build) : [...(p?.refused ?? []), build],
        });
</script>

<section class="panel" aria-labelledby="vendor-{vendor.id}">
    <div class="flex items-center gap-3">
        <h2 id="vendor-{vendor.id}">{vendor.name}, practice vendor</h2>
        <button class="act-quiet !min-h-9 ml-auto" disabled={!mayAct || p === null} onclick={() => clear.mutate()}
            >All right again</button
        >
    </div>
    {#if p === null}<div class="mt-2">
            <Notice tone="amber">It does not answer. If it was made silent, wait a minute.</Notice>
        </div>
    {:else}
        <h3 class="mt-2 text-sm text-quiet">Gives no permit for, though the catalogue says that it is signed</h3>
        <div class="flex flex-wrap gap-x-4">
            {#each p.builds as b (b.build)}<label class="flex items-center gap-2 text-sm"
                    ><input
                        type="checkbox"
                        class="h-6 w-6 accent-[var(--jade)]"
                        disabled={!mayAct}
                        checked={refused(b.build)}
                        onchange={() => toggleRefused(b.build)}
                    />{version(b.version)} <span class="font-mono">{b.build}</span></label
                >{/each}
        </div>
        <h3 class="mt-3 text-sm text-quiet">Downloads and answers</h3>
        <div class="flex flex-wrap gap-x-5 gap-y-1 text-sm">
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.cutAfterBytes !== null}
                    onchange={(e) => set.mutate({ cutAfterBytes: e.currentTarget.checked ? 6_000_000 : null })}
                />cut every 6 MB</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.slowFactor > 1}
                    onchange={(e) => set.mutate({ slowFactor: e.currentTarget.checked ? 10 : 1 })}
                />ten times slower</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.alterNext}
                    onchange={(e) => set.mutate({ alterNext: e.currentTarget.checked })}
                />the next download is altered</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.broken}
                    onchange={(e) => set.mutate({ broken: e.currentTarget.checked })}
                />answers with a fault of its own</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.slowSeconds > 0}
                    onchange={(e) => set.mutate({ slowSeconds: e.currentTarget.checked ? 5 : 0 })}
                />answers after 5 s</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-6 w-6 accent-[var(--jade)]"
                    disabled={!mayAct}
                    checked={p.silent}
                    onchange={(e) => set.mutate({ silent: e.currentTarget.checked })}
                />does not answer at all</label
            >
        </div>
    {/if}
</section>
