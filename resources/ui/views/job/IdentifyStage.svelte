<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { bytes, dayAndClock, kindName, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import AboutForm from './AboutForm.svelte';
    import { jobAct } from './job.svelte';
    import WaitingDevice from './WaitingDevice.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct(() => api.retry(job.id, 'pair'));
    const device = $derived(job.device);
    const facts = $derived(
        device === null
            ? []
            : ([
                  ['Model', device.modelName, false],
                  [
                      'Hardware id',
                      [device.hardwareId ?? 'not known', job.variant].filter((w) => w !== null).join(', '),
                      true,
                  ],
                  ['Serial', device.serial, true],
                  ['Installed', `${version(device.version)} (${device.build})`, true],
                  [
                      'Storage',
                      device.capacityBytes === null
                          ? 'not known'
                          : [device.capacityBytes - (device.freeBytes ?? 0), device.capacityBytes]
                                .map((n) => bytes(n))
                                .join(' used of '),
                      false,
                  ],
                  [
                      'Battery',
                      device.batteryPercent === null
                          ? 'not known'
                          : `${device.batteryPercent} %${device.charging ? ', charging' : ''}`,
                      false,
                  ],
                  ['Owner lock', device.ownerLock ?? 'not known', false],
                  [
                      'Lock delay',
                      device.lockDelay === null
                          ? 'not known'
                          : device.lockDelayEndsAt === null
                            ? device.lockDelay
                            : `${device.lockDelay}, until ${dayAndClock(device.lockDelayEndsAt)}`,
                      false,
                  ],
                  [
                      'Beta programme',
                      device.betaEnrolled === null ? 'not known' : device.betaEnrolled ? 'enrolled' : 'not enrolled',
                      false,
                  ],
                  ['Rollback counter', String(device.rollbackCounter ?? 'not known'), false],
                  [
                      'Accessories',
                      device.accessories.map((a) => `${a.id} (${a.type} ${version(a.osVersion)})`).join(', ') || 'none',
                      false,
                  ],
                  [
                      'Apps',
                      device.apps.map((a) => `${a.name} (from ${version(a.minimumOs)})`).join(', ') || 'none',
                      false,
                  ],
              ] as [string, string, boolean][]),
    );
</script>

{#if job.differences !== null && job.differences.length > 0}
    <div class="mb-3">
        <Notice tone="amber">
            <p class="font-semibold">
                The device says otherwise than what was said of it; the plan was made again by what it says
            </p>
            <ul>
                {#each job.differences as d (d.field)}<li>
                        {d.name}: said <span class="font-mono line-through">{d.said}</span>, is
                        <span class="font-mono font-semibold">{d.read}</span>
                    </li>{/each}
            </ul>
        </Notice>
    </div>
{/if}
{#if job.waitingForDevice}
    <div class="panel mb-3 py-1">
        {#each stepsOf(job, 'identify') as step (step.code + step.leg)}<StepLine
                {step}
                onretry={() => retry.mutate()}
            />{/each}
    </div>
    <WaitingDevice {job} mayAct={session.mayAct} />
{:else}
    <div class="grid items-start gap-4 lg:grid-cols-[minmax(18rem,26rem)_1fr] lg:gap-6">
        <section class="panel" aria-label="Steps">
            {#each stepsOf(job, 'identify') as step (step.code + step.leg)}<StepLine
                    {step}
                    onretry={() => retry.mutate()}
                />{/each}
            {#if device !== null}
                <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-t border-edge pt-3 text-sm">
                    {#each facts as [name, value, mono] (name)}<dt class="text-quiet">{name}</dt>
                        <dd class={mono ? 'font-mono' : ''}>{value}</dd>{/each}
                </dl>
            {/if}
        </section>
        <div class="flex flex-col gap-4">
            <AboutForm {job} />
            <section class="panel" aria-labelledby="kinds">
                <h2 id="kinds" class="mb-2">What the device holds</h2>
                {#if device === null}
                    <p class="text-quiet">Shown as soon as the device has said yes to this computer.</p>
                {:else}
                    <table class="w-full text-sm">
                        <thead class="text-left text-quiet"
                            ><tr
                                ><th class="py-1 font-normal">Kind</th><th class="text-right font-normal">Items</th><th
                                    class="text-right font-normal">Size</th
                                ><th class="pl-8 font-normal">Last changed</th><th class="font-normal">Synced</th></tr
                            ></thead
                        >
                        <tbody>
                            {#each device.kinds as k (k.kind)}
                                <tr class="border-t border-edge"
                                    ><td class="py-1">{kindName(k.kind)}</td><td class="text-right">{k.items}</td><td
                                        class="text-right">{bytes(k.bytes)}</td
                                    ><td class="pl-8"
                                        >{k.lastChangedAt === null ? '–' : dayAndClock(k.lastChangedAt)}</td
                                    ><td>{k.syncedAt === null ? '–' : dayAndClock(k.syncedAt)}</td></tr
                                >
                            {/each}
                        </tbody>
                    </table>
                {/if}
            </section>
        </div>
    </div>
{/if}
