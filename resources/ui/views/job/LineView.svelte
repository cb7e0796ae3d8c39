<script lang="ts">
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import { bytes, counted, dayAndClock, kindName, minutes, version } from '../../parts/format';
    import { lostByName, lostKinds } from '../../parts/losses';
    import Countdown from '../../parts/Countdown.svelte';
    import Notice from '../../parts/Notice.svelte';
    import StonePath from '../../parts/StonePath.svelte';
    import Copied from '../../parts/Copied.svelte';
    import Term from '../../parts/Term.svelte';
    import DeviceHead from './DeviceHead.svelte';
    import { jobAct, watchJob } from './job.svelte';
    import { onlySerial } from './serial';

    let { params }: { params: { id: string } } = $props();
    const job = watchJob(() => Number(params.id));
    let typed = $state('');
    const cross = jobAct(
        (serial: string) => api.crossLine(Number(params.id), serial),
        (j) => void push(`/jobs/${j.id}`),
    );

    /** Focus goes where work continues. */
    const focusFirst = (field: HTMLInputElement) => field.focus();

    const bag = $derived(job.data?.bags.filter((b) => b.loweredFrom === null).at(-1));
    const ready = $derived(
        job.data?.may['cross-line'].allowed || job.data?.may['cross-line'].code === 'erase-line-closed',
    );
    const route = $derived(job.data?.route ?? null);
    const erases = $derived((route?.erases ?? 1) > 0);
    const losses = $derived(
        route === null
            ? []
            : [
                  ...lostKinds(route).map((name) => `${name} (lost)`),
                  ...route.losses.atRisk.map((k) => `${kindName(k)} (at risk)`),
                  ...route.losses.outOfDate.map((k) => `${kindName(k)} (out of date)`),
                  ...lostByName(route, job.data?.device ?? null),
              ],
    );
    // the window that ends first on the way
    const ends = $derived(
        (route?.legs ?? []).flatMap((l) => (l.windowEnds === null ? [] : [l.windowEnds])).sort()[0] ?? null,
    );
    const whole = $derived(
        route === null ? '' : `, of ${minutes(route.minutes.low)} to ${minutes(route.minutes.high)} in all`,
    );
    const again = $derived(
        route?.kinds
            .filter((k) => k.outcome === 'sign-in-again' || k.outcome === 're-enter')
            .map((k) => kindName(k.kind)) ?? [],
    );
</script>

<svelte:head><title>Erase line · {job.data?.serial ?? ''} · Jade Step</title></svelte:head>
{#if job.data === undefined}
    <p class="text-quiet" role="status">Opening the job…</p>
{:else}
    <div class="mb-3"><DeviceHead job={job.data} /></div>
    <StonePath job={job.data} shown="safeguard" />
    {#if !ready}
        <div class="mt-4">
            <Notice tone="amber"
                >The erase line cannot be crossed now. <a class="underline" href="#/jobs/{job.data.id}">Go to the job</a
                > and see what it needs.</Notice
            >
        </div>
    {:else}
        <div class="mt-4 grid @4xl:grid-cols-[1fr_1fr_1.1fr] gap-4">
            <section class="panel" aria-labelledby="proven">
                <h2 id="proven" class="mb-2">What was proven</h2>
                {#if bag === undefined}<p class="text-loss">No backup.</p>{:else}
                    <dl class="flex flex-col gap-2">
                        <div>
                            <dt class="text-sm text-quiet">The data is in</dt>
                            <dd>{bag.label}</dd>
                            <dd class="text-xs"><Copied text={bag.id} what="Name of the folder" /></dd>
                        </div>
                        <div>
                            <dt class="text-sm text-quiet">Read back, byte by byte</dt>
                            <dd>
                                {counted(bag.items ?? 0, 'item')}, {bytes(bag.bytes)}{bag.verifiedAt === null
                                    ? ''
                                    : `, ${dayAndClock(bag.verifiedAt)}`}
                            </dd>
                        </div>
                        <div>
                            <dt class="text-sm text-quiet">Counts equal the device’s</dt>
                            <dd class="text-sm">
                                {Object.entries(bag.counts)
                                    .map(([k, n]) => `${n} ${kindName(k)}`)
                                    .join(', ')}
                            </dd>
                        </div>
                        <div>
                            <dt class="text-sm text-quiet">Sealed</dt>
                            <dd>{bag.sealedAt === null ? 'not yet' : dayAndClock(bag.sealedAt)}</dd>
                        </div>
                    </dl>
                {/if}
            </section>
            <section class="panel" aria-labelledby="lost">
                <h2 id="lost" class="mb-2">What will be lost</h2>
                {#if losses.length === 0}<p>Nothing, by the plan.</p>{:else}<ul class="font-semibold text-loss">
                        {#each losses as l, i (i)}<li>{l}</li>{/each}
                    </ul>{/if}
                {#if again.length > 0}<h3 class="mt-4 text-sm text-quiet">To do again by hand</h3>
                    <ul>
                        {#each again as a (a)}<li>{a}</li>{/each}
                    </ul>{/if}
                <h3 class="mt-4 text-sm text-quiet">After this</h3>
                <p>
                    {erases ? 'The device is erased and' : 'Nothing is erased:'}
                    {route?.legs.map((l) => version(l.to.version)).join(', then ')} is written{erases
                        ? ''
                        : ' in place, and the data stays'}. From there it only goes forward.
                </p>
                <h3 class="mt-4 text-sm text-quiet">How long</h3>
                <p data-how-long>
                    {#if job.data.minutesLeft === null}Not known.{:else}About
                        <strong>{minutes(job.data.minutesLeft)}</strong> of the machine’s work from here{whole}.{/if}
                </p>
                <h3 class="mt-4 text-sm text-quiet">The <Term of="signing-window" /></h3>
                <p data-window>
                    {#if ends === null}No end of it is known. The
                        <Term of="permit" /> is asked for when the device is in recovery mode.
                    {:else}Open until <strong>{dayAndClock(ends)}</strong>.
                        {#if job.data.latestStart !== null}<Countdown until={job.data.latestStart} />{/if}{/if}
                </p>
            </section>
            <form
                class="panel border-2 border-loss"
                onsubmit={(e) => {
                    e.preventDefault();
                    cross.mutate(onlySerial(typed));
                }}
            >
                <h1>Cross the erase line</h1>
                <p class="my-3">
                    {job.data.modelName}, from {version(job.data.fromVersion ?? '')} to {version(
                        job.data.toVersion ?? '',
                    )}. Before anything is {erases ? 'erased' : 'written'}, every byte of the sealed copy is read once
                    more.
                </p>
                <label class="flex flex-col gap-1"
                    >Type the serial that stands on the device<input
                        class="field font-mono text-lg"
                        name="serial"
                        autocomplete="off"
                        spellcheck="false"
                        use:focusFirst
                        placeholder={job.data.serial.replace(/[^-]/g, '·')}
                        bind:value={typed}
                    /></label
                >
                {#if cross.isError}<p class="mt-3 rounded-md bg-loss-wash p-3 text-loss" role="alert">
                        {cross.error.message}
                    </p>{/if}
                <div class="mt-4 flex gap-3">
                    <button class="act flex-1" disabled={cross.isPending || typed.trim() === ''}
                        >{erases ? 'Cross and erase' : 'Cross and write in place'}</button
                    >
                    <a class="act-quiet" href="#/jobs/{job.data.id}/safeguard">Not now</a>
                </div>
            </form>
        </div>
    {/if}
{/if}
