<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { handover, sheetAddress } from '../../api/handover';
    import type { Sheet } from '../../api/types';
    import { AFTERCARE_STATE, BY_HAND_OUTCOMES, OUTCOME_SHORT } from '../../api/words';
    import { counted, day, dayAndClock, version } from '../../parts/format';
    import { shelf } from '../../api/shelf';
    import Notice from '../../parts/Notice.svelte';
    import { times } from '../../parts/times.svelte';

    let { params }: { params: { id: string } } = $props();
    const sheet = createQuery(() => ({
        queryKey: ['sheet', params.id],
        queryFn: () => handover.sheet(Number(params.id)),
    }));
    const shop = createQuery(() => ({ queryKey: ['shop'], queryFn: shelf.shop }));
    /** What was done, in the owner's words. */
    function deed(s: Sheet): string {
        const [from, to] = [version(s.before.version), version(s.after.version)];
        if (s.before.build === s.after.build) return `Your device runs ${to}, as it did.`;
        const how = s.kinds.some((k) => k.outcome !== 'kept') ? 'and put back what was on it' : 'with its data on it';
        return `We took your device from ${from} to ${to}, ${how}.`;
    }
    const title = (s: Sheet) =>
        s.job.state === 'open' ? '' : s.job.state === 'unfinished' ? ', given back unfinished' : ', handed over';
    type Line = Sheet['kinds'][number];
    const ended = (k: Line) => {
        if (BY_HAND_OUTCOMES.includes(k.outcome)) return OUTCOME_SHORT[k.outcome];
        if (k.there >= k.before) return k.outcome === 'kept' ? 'stayed on the device' : 'all of it';
        if (k.there === 0) return 'did not come back';
        return k.outcome === 'returned-as-of' && k.asOf !== null ? `as of ${day(k.asOf)}` : 'not all of it';
    };
</script>

<svelte:head><title>Hand-over sheet · {sheet.data?.device.serial ?? ''} · Jade Step</title></svelte:head>
<div class="mb-3 flex items-center gap-3 print:hidden">
    <a class="act-quiet" href="#/jobs/{params.id}/hand-over">Back to the job</a>
    {#if sheet.data}<button class="act" onclick={() => window.print()}>Print</button><a
            class="act-quiet"
            href={sheetAddress(Number(params.id))}
            download="hand-over-{sheet.data.device.serial}.json">As a document (JSON)</a
        >{/if}
</div>
{#if sheet.isPending}<p class="text-quiet" role="status">Writing the sheet…</p>
{:else if !sheet.data}<Notice tone="amber">{sheet.error?.message}</Notice>
{:else}
    {@const s = sheet.data}
    <article
        class={[
            'sheet mx-auto max-w-[50rem] rounded-lg border border-edge bg-panel p-10',
            'print:max-w-none print:rounded-none print:border-0 print:p-0',
        ]}
        aria-label="Hand-over sheet"
    >
        <header class="flex items-start gap-4 border-b-2 border-jade pb-2">
            {#if shop.data?.logo}<img class="max-h-14 max-w-40 object-contain" src={shop.data.logo} alt="" />{/if}
            <div class="flex-1">
                {#if shop.data?.name}<p class="text-lg font-semibold" data-shop>{shop.data.name}</p>{/if}
                {#if shop.data?.contact}<p class="text-sm whitespace-pre-line text-quiet">{shop.data.contact}</p>{/if}
                <h1 class={shop.data?.name ? 'mt-2' : ''}>Your {s.device.modelName}{title(s)}</h1>
            </div>
            <p class="text-sm">{day(s.job.endedAt ?? s.writtenAt)}</p>
        </header>
        {#if s.job.state === 'open'}<p
                class="mt-2 rounded-md border-2 border-dashed border-amber-mark px-3 py-1 text-amber"
                data-draft
            >
                Draft. The device has not been handed over yet, and what stands here may still change.
            </p>{/if}
        <p class="mt-1 text-sm text-quiet">
            Serial <span class="font-mono">{s.device.serial}</span>, number {s.job.id}; taken in {dayAndClock(
                s.job.takenInAt,
            )} ({times.zoneName}) by {s.job.takenInBy}{s.job.endedBy === null
                ? ''
                : `, ${s.job.state === 'unfinished' ? 'given back' : 'handed over'} by ${s.job.endedBy}`}.
        </p>
        <p class="mt-3 text-lg">{deed(s)}</p>
        <div class="mt-3 grid grid-cols-[auto_auto_1fr] items-center gap-x-6 rounded-md bg-sunken px-4 py-3">
            <p>
                <span class="block text-sm text-quiet">It ran</span><span class="text-xl font-semibold"
                    >{version(s.before.version)}</span
                > <span class="code">{s.before.build}</span>
            </p>
            <p>
                <span class="block text-sm text-quiet">It runs now</span><span class="text-xl font-semibold"
                    >{version(s.after.version)}</span
                > <span class="code">{s.after.build}</span>
            </p>
            <p class="text-lg font-semibold {s.nothingLost ? 'text-jade-strong' : ''}">{s.verdict}</p>
        </div>
        {#if s.losses.length > 0}<section class="mt-4">
                <h2>What did not come back</h2>
                <ul class="list-disc pl-5">
                    {#each s.losses as l (l)}<li>{l}</li>{/each}
                </ul>
            </section>{/if}
        <section class="mt-4">
            <h2>What came back</h2>
            <p class="text-sm text-quiet">
                We compared what was on the device before with what is on it now, {dayAndClock(s.comparedAt)}.
            </p>
            <table class="mt-1 w-full text-sm">
                <thead class="text-left text-quiet"
                    ><tr
                        ><th class="font-normal">Kind</th><th class="text-right font-normal">Before</th><th
                            class="text-right font-normal">Now</th
                        ><th class="pl-8 font-normal">In words</th></tr
                    ></thead
                >
                <tbody
                    >{#each s.kinds as k (k.kind)}<tr class="border-t border-edge"
                            ><th scope="row" class="py-0.5 text-left font-normal">{k.name}</th><td class="text-right"
                                >{k.before}</td
                            ><td class="text-right font-semibold">{k.there}</td><td class="pl-8"
                                >{ended(k)}{k.rewrittenByTheDevice > 0
                                    ? `; ${counted(k.rewrittenByTheDevice, 'item')} the device writes itself`
                                    : ''}{k.comparedItemByItem ? '' : '; compared by number'}</td
                            ></tr
                        >{/each}</tbody
                >
            </table>
        </section>
        <section class="mt-4 break-inside-avoid">
            <h2>What to do now</h2>
            <ul class="mt-1 flex flex-col gap-1">
                {#each s.toDo as p (p.code)}<li class="flex gap-3">
                        <span
                            class="mt-1 inline-block size-3.5 shrink-0 border border-ink text-center text-xs leading-3"
                            aria-hidden="true">{p.state === 'open' ? '' : '✓'}</span
                        ><span
                            >{p.words}{#if p.names.length > 0}&nbsp;<span class="text-quiet">{p.names.join(', ')}.</span
                                >{/if}{#if p.state === 'seen' || p.state === 'attested'}&nbsp;<span class="text-quiet"
                                    >({AFTERCARE_STATE[p.state]})</span
                                >{/if}</span
                        >
                    </li>{:else}<li>Nothing.</li>{/each}
            </ul>
        </section>
        {#if s.toKnow.length > 0}<section class="mt-4 break-inside-avoid">
                <h2>Good to know</h2>
                <ul class="mt-1 flex flex-col gap-1">
                    {#each s.toKnow as p (p.code)}<li>
                            {p.words} <span class="text-quiet">{p.names.join(', ')}.</span>
                        </li>{/each}
                </ul>
            </section>{/if}
        <section class="mt-4 break-inside-avoid">
            <h2>Where your data is, and until when</h2>
            <ul class="mt-1 flex flex-col gap-1">
                {#each s.kept as p (p.code)}<li>
                        {p.words}
                        <ul class="list-disc pl-5 text-sm">
                            {#each p.names as n (n)}<li>{n}</li>{/each}
                        </ul>
                    </li>{:else}<li>Nothing.</li>{/each}
            </ul>
        </section>
        <section class="mt-6 grid break-inside-avoid grid-cols-2 gap-8 text-sm" aria-label="Signatures">
            {#each ['Handed over by', 'Received by'] as who (who)}<p class="border-t border-ink pt-1">
                    {who}, day
                </p>{/each}
        </section>
        <footer class="mt-4 text-xs text-quiet">
            This sheet tells numbers, and nothing of what is on your device. Written {dayAndClock(s.writtenAt)}.
        </footer>
    </article>
{/if}
