<script lang="ts">
    import { BookAlert, Hand, ShieldAlert } from '@lucide/svelte';
    import { link } from 'svelte-spa-router';
    import type { JobSummary, ToldChance } from '../../api/types';
    import { JOB_STATE } from '../../api/words';
    import { day, dayAndClock, minutes, version } from '../../parts/format';
    import Countdown from '../../parts/Countdown.svelte';
    import { phaseWords } from '../../parts/stages';
    import StonePath from '../../parts/StonePath.svelte';

    let { job }: { job: JobSummary } = $props();
    const versions = $derived(
        job.fromVersion === null
            ? 'not read yet'
            : [job.fromVersion, job.toVersion]
                  .filter((v) => v !== null)
                  .map(version)
                  .join(' → '),
    );
    const where = $derived(
        job.state !== 'open'
            ? ''
            : job.place === null
              ? ' · not plugged in'
              : job.place.label && ` · ${job.place.label}`,
    );
    const half = (c: ToldChance) => (c.halfClosedBy === null ? '' : `; half closed by ${day(c.halfClosedBy)}`);
    const likely = (c: ToldChance) =>
        `${c.isLittle ? 'Little chance that' : 'That'} ${c.version} is still signed then: ${c.words}${half(c)}`;
    const left = $derived(
        job.minutesLeft === null && job.current?.secondsLeft == null
            ? null
            : Math.max(job.minutesLeft ?? 0, (job.current?.secondsLeft ?? 0) / 60),
    );
    const still = $derived(job.now.doNotDisturb);
</script>

<li class="@container">
    <a
        href="/jobs/{job.id}"
        use:link
        class={[
            'panel grid grid-cols-[auto_1fr_auto] @2xl:grid-cols-[auto_minmax(9rem,1fr)_auto_minmax(11rem,1.4fr)]',
            'items-center gap-x-4 gap-y-1 p-3 hover:border-jade',
            job.needsHand && job.state === 'open' && 'border-amber-mark',
        ]}
    >
        <span
            class={[
                'grid min-h-11 min-w-11 place-items-center rounded-md px-1 font-mono text-2xl font-semibold',
                job.place === null ? 'text-quiet' : 'bg-jade-wash text-jade-strong',
            ]}
            title={job.place === null ? undefined : `${job.place.bench}, port ${job.place.port}`}
            >{#if job.place !== null}<span class="sr-only">port</span>{job.place.byAir
                    ? '∿'
                    : job.place.port}{:else}<span aria-hidden="true">–</span>{/if}</span
        >
        <span>
            <span class="font-semibold">{job.variant ?? job.modelName ?? 'Device'}</span>
            <span class="code whitespace-nowrap">{job.serial}</span>
            <span class="block text-sm text-quiet">{versions}{where}{job.holder === '' ? '' : ` · ${job.holder}`}</span>
        </span>
        <StonePath {job} small />
        <span class="col-span-3 text-sm @2xl:col-span-1">
            {#if job.state !== 'open'}
                <span
                    class="first-letter:uppercase {job.state === 'unfinished'
                        ? 'text-amber'
                        : 'text-quiet'} inline-block"
                    >{job.nightly ? 'at night, ' : ''}{JOB_STATE[job.state]}{job.endedAt === null
                        ? ''
                        : `, ${dayAndClock(job.endedAt)}.`}</span
                >
                {#if job.state === 'done'}<span class="text-quiet">{job.verdict.words}</span>
                {:else if job.state === 'done-with-losses'}<span
                        >Without {job.losses?.slice(0, 2).join(', ')}{(job.losses?.length ?? 0) > 2
                            ? ` and ${(job.losses?.length ?? 0) - 2} more`
                            : ''}.</span
                    >
                {:else if job.endReason !== null}<span>{job.endReason}</span>{/if}
            {:else if job.needsHand}<span class="flex items-start gap-2 font-semibold text-amber"
                    ><Hand size="1.15em" class="mt-0.5 shrink-0" aria-hidden="true" /><span
                        >{job.now.what}{#if job.now.who !== 'technician-at-screen'}<span
                                class="line-clamp-2 font-normal">{job.now.why}</span
                            >{/if}</span
                    ></span
                >
            {:else if job.current === null}<span>{job.now.what}</span>
            {:else}
                <span class="flex items-center gap-1.5 {still ? 'font-semibold' : ''}"
                    >{#if still}<ShieldAlert size="1.05em" class="text-amber" aria-hidden="true" />{/if}{job.current
                        .title}{still ? ': do not disturb' : ''}</span
                >
                <span class="block text-quiet"
                    >{phaseWords(job.current)}{job.current.progress === null
                        ? ''
                        : ` · ${Math.round(job.current.progress * 100)} %`}</span
                >
                {#if job.current.progress !== null}<span
                        class="mt-1 block h-1.5 overflow-hidden rounded-full bg-sunken"
                        aria-hidden="true"
                        ><span
                            class="block h-full rounded-full bg-jade transition-[width] duration-500"
                            style:width="{job.current.progress * 100}%"
                        ></span></span
                    >{/if}
            {/if}
            {#if job.flag !== null && job.state === 'open'}<span class="mt-1 flex items-start gap-2 text-amber"
                    ><BookAlert size="1.15em" class="shrink-0" aria-hidden="true" /><span
                        >The almanac has changed: {job.flag.words[0]}{job.flag.words.length > 1
                            ? ` And ${job.flag.words.length - 1} more.`
                            : ''}</span
                    ></span
                >{/if}
            {#if job.state === 'open' && job.chance !== null}{@const c = job.chance}<span
                    class={c.isLittle ? 'text-amber' : 'text-quiet'}
                    title={c.restsOn}
                    data-chance>{likely(c)}</span
                >{/if}
            {#if job.state === 'open' && (left !== null || job.latestStart !== null)}<span
                    class="flex flex-wrap gap-x-4 text-quiet"
                    >{#if left !== null && left > 0}<span data-left>{minutes(left)} of work left</span
                        >{/if}{#if job.latestStart !== null}<Countdown until={job.latestStart} />{/if}</span
                >{/if}
        </span>
    </a>
</li>
