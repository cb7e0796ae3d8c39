<script lang="ts">
    import { CircleAlert, CircleCheck } from '@lucide/svelte';
    import { createMutation } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { notices } from '../../shell/notices.svelte';
    import { intake } from '../../api/intake';
    import type { IntakeTable } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';

    const EXAMPLE = 'serial,modelName,version,goal\nSKL-0101,Fenn 7,9.3,newest in 8';
    let { dropped = $bindable(null) }: { dropped?: File | null } = $props();
    let csv = $state('');
    $effect(() => {
        const file = dropped;
        if (file === null) return;
        dropped = null;
        void read(file);
    });
    const preview = createMutation(() => ({ mutationFn: (text: string) => intake.previewBatch(text) }));
    const take = createMutation(() => ({
        mutationFn: () => intake.takeBatch(csv, preview.data?.good ?? 0),
        onSuccess: ({ jobs }) => {
            notices.success(`${jobs.length} devices taken in.`);
            void push('/');
        },
    }));
    const lines = $derived(preview.data?.lines ?? []);
    const bad = $derived(lines.length - (preview.data?.good ?? 0));

    const choose = (event: Event & { currentTarget: HTMLInputElement }) => read(event.currentTarget.files?.[0]);
    async function read(file: File | undefined) {
        if (file === undefined) return;
        csv = await file.text();
        look();
    }
    function look() {
        take.reset();
        preview.mutate(csv);
    }
    const which = (l: IntakeTable['lines'][number]) =>
        l.identity === null
            ? ''
            : l.identity.candidates.length === 1
              ? (l.identity.candidates[0]?.hardwareId ?? '')
              : `${l.identity.candidates.length} variants fit. ${l.identity.questions[0]?.words ?? ''}`;
</script>

<section class="panel">
    <p class="mb-3 text-sm">
        A table with the columns <span class="font-mono">serial, imei, hardwareId</span> or
        <span class="font-mono">modelName, version, build, goal</span>: one line a device, separated by commas. A goal
        is written as 8.7, newest in 8, below 9.0 or before 2026-07-01.
    </p>
    <div class="grid items-start gap-4 @4xl:grid-cols-[1fr_auto]">
        <label class="flex flex-col gap-1"
            >Paste it here<textarea
                class="field h-28 py-2 font-mono text-sm"
                spellcheck="false"
                placeholder={EXAMPLE}
                name="csv"
                bind:value={csv}></textarea></label
        >
        <div class="flex flex-col gap-2 pt-6">
            <label class="act-quiet relative cursor-pointer focus-within:outline-3 focus-within:outline-amber-mark"
                >Choose a file<input
                    class="absolute inset-0 cursor-pointer opacity-0"
                    type="file"
                    accept=".csv,text/csv"
                    onchange={choose}
                /></label
            >
            <button class="act-quiet" disabled={csv.trim() === '' || preview.isPending} onclick={look}
                >Look at it</button
            >
        </div>
    </div>
    <div class="mt-3" aria-live="polite">
        {#if preview.isError}<Notice tone="amber">{preview.error.message}</Notice>
        {:else if preview.data}
            <div class="mb-2 flex items-center gap-4">
                <p class="font-semibold">
                    {preview.data.good} of {lines.length} lines are good{bad > 0 ? `; ${bad} cannot be taken in` : ''}.
                    Nothing is stored yet.
                </p>
                <button
                    class="act ml-auto"
                    disabled={preview.data.good === 0 || take.isPending}
                    onclick={() => take.mutate()}
                    >{bad > 0
                        ? `Take in the ${preview.data.good} good ones`
                        : `Take in all ${preview.data.good}`}</button
                >
            </div>
            {#if take.isError}<div class="mb-2"><Notice tone="amber">{take.error.message}</Notice></div>{/if}
            <table class="w-full text-sm [&_td]:py-1.5 [&_td]:pr-4 [&_th]:pr-4">
                <thead class="text-left text-quiet"
                    ><tr
                        ><th class="py-1 font-normal">Line</th><th class="font-normal">Serial</th><th
                            class="font-normal">Model</th
                        ><th class="font-normal">Installed</th><th class="font-normal">Goal</th><th class="font-normal"
                            >What is known, or wrong</th
                        ></tr
                    ></thead
                >
                <tbody>
                    {#each lines as l (l.line)}
                        <tr class="border-t border-edge align-top" data-line={l.line} data-good={l.faults.length === 0}>
                            <td
                                ><span class="inline-flex items-center gap-1"
                                    >{#if l.faults.length === 0}<CircleCheck
                                            size="1.05em"
                                            class="text-jade"
                                            aria-label="good"
                                        />{:else}<CircleAlert
                                            size="1.05em"
                                            class="text-amber"
                                            aria-label="cannot be taken in"
                                        />{/if}{l.line}</span
                                ></td
                            >
                            <td class="font-mono">{l.serial || l.imei}</td><td>{l.model}</td><td class="font-mono"
                                >{l.version} {l.build}</td
                            ><td>{l.goal ?? ''}</td>
                            <td class={l.faults.length > 0 ? 'text-amber' : ''}
                                >{#each l.faults as f (f)}<span class="block">{f}</span>{:else}{which(l)}{/each}</td
                            >
                        </tr>
                    {/each}
                </tbody>
            </table>
        {/if}
    </div>
</section>
