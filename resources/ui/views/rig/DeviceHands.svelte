<script lang="ts">
    import { rig } from '../../api/install';
    import type { PracticeBench, PracticeDevice } from '../../api/types';
    import { clock, day, dayAndClock, version } from '../../parts/format';
    import { FAULT_WORDS, practiceAct } from './hands.svelte';
    import KeyPad from './KeyPad.svelte';

    let {
        bench,
        practice,
        device,
        mayAct,
    }: { bench: number; practice: PracticeBench; device: PracticeDevice; mayAct: boolean } = $props();
    const hand = practiceAct((to: { hand: string; body: Record<string, unknown> }) =>
        rig.hand(bench, device.serial, to.hand, to.body),
    );
    const clear = practiceAct(() => rig.clearFaults(bench, device.serial));
    const answer = (what: string) => hand.mutate({ hand: 'answers', body: { answer: what } });
    const free = $derived(practice.ports.filter((p) => !practice.devices.some((d) => d.port === p)));
    let port = $state<string | null>(null);
    let fault = $state({ kind: 'cable-out', work: 'install', phase: 'write', percent: 50, seed: 1 });
    const timed = $derived(['cable-out', 'work-fails'].includes(fault.kind));
    const phases = $derived(practice.phases[fault.work] ?? []);
    const told = (f: PracticeDevice['faults'][number]) =>
        `${FAULT_WORDS[f.kind] ?? f.kind}${f.work === undefined ? '' : `: ${f.work}, ${f.phase}, ${f.percent} %`}`;
    const asks: Record<string, [string, string][]> = {
        consent: [['consent', 'Say yes on the device']],
        passcode: [['passcode', 'Enter the passcode on the device']],
        'owner-account': [['owner-account', 'Enter the owner’s account on the device']],
    };
    const lock = $derived(
        device.ownerLock === 'off'
            ? [['owner-lock-on', 'Switch the owner lock on']]
            : [
                  [
                      'owner-lock-off',
                      device.lockDelay === 'on' ? 'Begin switching the owner lock off' : 'Switch the owner lock off',
                  ],
                  ['owner-lock-off-elsewhere', 'Take it off the account from elsewhere'],
              ],
    );
    const standing = $derived(
        [
            device.bootable ? '' : ', broken off half-written',
            ` · ${device.hidden ? 'not recognised' : `${device.mode} mode`}`,
            ` · battery ${device.batteryPercent} %${device.charging ? ', charging' : ''}`,
            ` · owner lock ${device.ownerLock}`,
            device.lockDelayEndsAt === null ? '' : `, off at ${dayAndClock(device.lockDelayEndsAt)}`,
            ` · ${device.paired ? 'paired' : 'not paired'}`,
        ].join(''),
    );
</script>

<section class="panel flex flex-col gap-3" aria-labelledby="hands">
    <div>
        <h3 id="hands" class="font-semibold">{device.modelName} <span class="code">{device.serial}</span></h3>
        <p class="text-sm">{device.note}{device.boxLabel === null ? '' : ` Its box says “${device.boxLabel}”.`}</p>
        <p class="mt-1 text-sm text-quiet">
            {version(device.version)}
            <span class="font-mono">{device.build}</span>{standing}{#if device.operation !== null}
                · <strong
                    >{String(device.operation.kind)}: {String(device.operation.phase)}, {Math.round(
                        Number(device.operation.progress) * 100,
                    )} %</strong
                >{/if}
        </p>
    </div>
    {#if device.asks !== null}<div class="flex flex-wrap items-center gap-3 rounded-md bg-amber-wash p-2 text-amber">
            <strong>The device asks:</strong>{#each asks[device.asks] ?? [] as [what, words] (what)}<button
                    class="act"
                    disabled={!mayAct}
                    onclick={() => answer(what)}>{words}</button
                >{/each}
        </div>{/if}
    <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Cable">
        {#if device.port === null}
            <label class="text-sm"
                >Port <select
                    class="field !min-h-10 ml-1"
                    value={port ?? free[0]}
                    onchange={(e) => (port = e.currentTarget.value)}
                    >{#each free as p (p)}<option>{p}</option>{/each}</select
                ></label
            >
            <button
                class="act"
                disabled={!mayAct || free.length === 0}
                onclick={() =>
                    hand.mutate({
                        hand: 'port',
                        body: { port: port !== null && free.includes(port) ? port : free[0] },
                    })}>Plug in</button
            >
        {:else}<button
                class="act-quiet"
                disabled={!mayAct}
                onclick={() => hand.mutate({ hand: 'port', body: { port: null } })}
                >Unplug from port {device.port}</button
            >{/if}
        {#if !device.charging}<button class="act-quiet" disabled={!mayAct} onclick={() => answer('charger-in')}
                >Put on a charging cable</button
            >{/if}
        {#each lock as [what, words] (what)}<button
                class="act-quiet"
                disabled={!mayAct}
                onclick={() => answer(what ?? '')}>{words}</button
            >{/each}
        {#if device.cloudBackup !== null && device.mode === 'normal' && device.activated}<button
                class="act-quiet"
                disabled={!mayAct}
                onclick={() => answer('cloud-return')}
                >Fetch the cloud backup of {day(device.cloudBackup.takenAt)}</button
            >{/if}
        {#if device.paired && device.mode === 'normal'}<button
                class="act-quiet"
                disabled={!mayAct}
                onclick={() => answer('pairing-withdrawn')}>Withdraw the pairing</button
            >{/if}
        {#if device.syncLate}<button class="act-quiet" disabled={!mayAct} onclick={() => answer('sync-arrives')}
                >Let sync arrive</button
            >{/if}
        {#if device.mode === 'normal' && device.operation === null}<button
                class="act-quiet"
                disabled={!mayAct}
                onclick={() => answer('installed-elsewhere')}>Have it installed elsewhere, and started empty</button
            >{/if}
        <button class="act-quiet ml-auto" disabled={!mayAct} onclick={() => hand.mutate({ hand: 'reset', body: {} })}
            >As it was delivered</button
        >
    </div>
    <KeyPad {device} {mayAct} speed={practice.speed} onkey={(body) => hand.mutate({ hand: 'keys', body })} />
    <form
        class="flex flex-wrap items-end gap-2 border-t border-edge pt-3 text-sm"
        aria-label="Make something go wrong"
        onsubmit={(e) => {
            e.preventDefault();
            hand.mutate({
                hand: 'faults',
                body: timed
                    ? { kind: fault.kind, work: fault.work, phase: fault.phase, percent: fault.percent }
                    : { kind: fault.kind },
            });
        }}
    >
        <label class="flex flex-col"
            >Make go wrong<select class="field !min-h-10" bind:value={fault.kind}
                >{#each practice.faultKinds as k (k)}<option value={k}>{FAULT_WORDS[k] ?? k}</option>{/each}</select
            ></label
        >
        {#if timed}
            <label class="flex flex-col"
                >during<select
                    class="field !min-h-10"
                    value={fault.work}
                    onchange={(e) => {
                        fault.work = e.currentTarget.value;
                        fault.phase = practice.phases[fault.work]?.[0] ?? '';
                    }}
                    >{#each Object.keys(practice.phases) as w (w)}<option>{w}</option>{/each}</select
                ></label
            >
            <label class="flex flex-col"
                >in<select class="field !min-h-10" bind:value={fault.phase}
                    >{#each phases as p (p)}<option>{p}</option>{/each}</select
                ></label
            >
            <label class="flex flex-col"
                >at %<input
                    class="field !min-h-10 w-20"
                    type="number"
                    min="0"
                    max="100"
                    bind:value={fault.percent}
                /></label
            >
        {/if}
        <button class="act-quiet" disabled={!mayAct}>Set this fault</button>
        <label class="ml-auto flex flex-col"
            >or by seed<input class="field !min-h-10 w-24" type="number" min="0" bind:value={fault.seed} /></label
        >
        <button
            class="act-quiet"
            type="button"
            disabled={!mayAct}
            onclick={() => hand.mutate({ hand: 'faults', body: { seed: fault.seed } })}>Draw one</button
        >
    </form>
    {#if device.faults.length > 0}<div class="flex items-start gap-3 text-sm">
            <ul class="flex-1">
                {#each device.faults as f, i (i)}<li class="text-amber">waits: {told(f)}</li>{/each}
            </ul>
            <button class="act-quiet !min-h-9" disabled={!mayAct} onclick={() => clear.mutate()}>Take back</button>
        </div>{/if}
    {#if device.fired.length > 0}<ul class="text-sm text-quiet">
            {#each device.fired.slice(-3) as f, i (i)}<li>
                    {clock(f.at)}: {FAULT_WORDS[f.kind] ?? f.kind}{f.words === null || f.words === undefined
                        ? ''
                        : `. ${f.words}`}
                </li>{/each}
        </ul>{/if}
</section>
