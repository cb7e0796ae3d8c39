<script lang="ts">
    import type { JobSummary, Stage } from '../api/types';
    import { stageOf, stagesOf } from './stages';

    let { job, shown = null, small = false }: { job: JobSummary; shown?: string | null; small?: boolean } = $props();

    const stages = $derived(stagesOf(job));
    const stopped = $derived(job.leftAt !== null);
    const at = $derived(stages.findIndex((s) => s.stage === (job.leftAt ?? stageOf(job))));
    const ended = $derived(['done', 'done-with-losses', 'backed-up'].includes(job.state));
    // what lies beyond the erase line, where a job has one
    const beyond = (stage: Stage) =>
        ['install', 'return', 'hand-over'].includes(stage) && job.stages.includes('install');
    const mark = (i: number) =>
        ended || i < at ? 'done' : i === at ? (stopped ? 'left' : job.needsHand ? 'hand' : 'now') : 'ahead';
    const words = { done: 'done', now: 'in progress', hand: 'needs a hand', ahead: 'ahead', left: 'left here' };
</script>

{#snippet stone(state: string, i: number)}
    <svg viewBox="0 0 64 34" class={small ? 'h-4 w-8' : 'h-6 w-10 shrink-0 @6xl:h-7 @6xl:w-12'} aria-hidden="true">
        <path
            d={i % 2 === 0
                ? 'M6 20C4 10 16 4 30 4s30 4 28 15-18 12-30 12S8 28 6 20z'
                : 'M5 17C6 7 22 3 36 5s24 6 23 14-16 12-29 12S4 27 5 17z'}
            fill={state === 'done'
                ? 'var(--jade)'
                : state === 'now'
                  ? 'var(--jade-wash)'
                  : state === 'hand'
                    ? 'var(--amber-wash)'
                    : 'var(--panel)'}
            stroke={state === 'hand'
                ? 'var(--amber-mark)'
                : state === 'ahead' || state === 'left'
                  ? 'var(--quiet)'
                  : 'var(--jade)'}
            stroke-width={small ? 4 : state === 'ahead' ? 1.5 : 2.5}
            stroke-dasharray={state === 'ahead' ? '4 3' : undefined}
        />
        {#if state === 'done'}<path d="M23 17l7 6 12-12" fill="none" stroke="var(--on-jade)" stroke-width="3.5" />
        {:else if state === 'hand'}<path d="M32 9v11M32 24v3" stroke="var(--amber)" stroke-width="3.5" />
        {:else if state === 'now'}<circle cx="32" cy="17" r="5" fill="var(--jade)" />{/if}
    </svg>
{/snippet}

{#snippet line()}
    <svg
        viewBox="0 0 40 80"
        preserveAspectRatio="none"
        class={small ? 'h-6 w-4' : 'absolute inset-0 h-full w-5 @6xl:w-10'}
        aria-hidden="true"
    >
        {#if !small}<path d="M20 0c-12 10 12 20 0 40s12 30 0 40h20V0z" fill="var(--water)" opacity="0.6" />{/if}
        <path
            d="M20 0c-12 10 12 20 0 40s12 30 0 40"
            fill="none"
            stroke={job.lineCrossed ? 'var(--jade)' : 'var(--loss)'}
            stroke-width={small ? 9 : 3.5}
        />
    </svg>
{/snippet}

<ol
    class="flex {small
        ? 'items-center gap-0.5'
        : 'items-stretch overflow-x-auto rounded-lg border border-edge bg-panel'}"
    aria-label="Stages of the job"
>
    {#each stages as { stage, name }, i (stage)}
        {#if stage === 'install'}<li
                class={small ? 'flex' : 'relative w-5 shrink-0 @6xl:w-10'}
                aria-label={job.lineCrossed ? 'erase line, crossed' : 'erase line, not crossed'}
            >
                {@render line()}
            </li>{/if}
        <li class="flex {small ? '' : 'flex-1'} {!small && beyond(stage) ? 'bg-water/60' : ''}">
            {#if small}
                <span title={`${name}: ${words[mark(i)]}`}
                    >{@render stone(mark(i), i)}<span class="sr-only">{name}: {words[mark(i)]}</span></span
                >
            {:else}
                <a
                    href={`#/jobs/${job.id}/${stage}`}
                    aria-current={shown === stage ? 'step' : undefined}
                    class={[
                        'flex flex-1 flex-col items-center justify-center gap-1 border-b-4 px-1 pt-2 pb-1 text-center',
                        'hover:bg-sunken @6xl:flex-row @6xl:gap-2 @6xl:px-2 @6xl:text-left',
                        shown === stage ? 'border-jade font-semibold' : 'border-transparent',
                    ]}
                >
                    {@render stone(mark(i), i)}
                    <span class="leading-tight"
                        >{name}<span class="block text-xs font-normal text-quiet">{words[mark(i)]}</span></span
                    >
                </a>
            {/if}
        </li>
    {/each}
</ol>
