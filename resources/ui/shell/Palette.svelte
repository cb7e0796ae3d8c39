<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { Command, Dialog } from 'bits-ui';
    import { push } from 'svelte-spa-router';
    import { find } from '../api/find';
    import { scannable } from '../parts/scan';
    import { commands, rank } from './commands';

    let { open = $bindable(false) }: { open: boolean } = $props();
    const PAUSE_MS = 120;
    const SHOWN = 40;
    let typed = $state('');
    let asked = $state('');
    $effect(() => {
        const words = typed.trim();
        const timer = setTimeout(() => (asked = words), PAUSE_MS);
        return () => clearTimeout(timer);
    });
    $effect(() => {
        if (!open) typed = '';
    });
    const found = createQuery(() => ({
        queryKey: ['find', asked],
        queryFn: () => find(asked),
        enabled: open && asked !== '',
        staleTime: 5000,
        placeholderData: (before) => (asked === '' ? undefined : before),
    }));
    type Entry = { key: string; what: string; title: string; about: string; score: number; run: () => void };
    const entries = $derived.by((): Entry[] => {
        const words = typed.trim();
        const own = commands().map((c, i) => ({ ...c, key: `own ${i}`, score: rank(words, c.title, c.about) }));
        if (words === '') return own;
        const others = (found.data?.found ?? []).map((f, i) => ({
            ...f,
            key: `${f.what} ${i} ${f.path}`,
            score: rank(words, f.title, f.about) || 1,
            run: () => void push(f.path),
        }));
        return [...own.filter((c) => c.score > 0), ...others].sort((a, b) => b.score - a.score).slice(0, SHOWN);
    });
    // the best answer is the one that Enter opens
    let selected = $derived(entries[0]?.key ?? '');
    const WHAT: Record<string, string> = {
        place: 'go to',
        setting: 'Settings',
        command: 'do',
        job: 'job',
        device: 'device',
        build: 'build',
        batch: 'batch',
        bag: 'backup',
        act: 'act',
        person: 'person',
        bench: 'bench',
        vendor: 'vendor',
    };
    const idle = $derived(asked === typed.trim() && !found.isFetching);

    function run(entry: Entry) {
        open = false;
        entry.run();
    }
</script>

<Dialog.Root bind:open>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-[40rem] p-2" data-palette>
            <Dialog.Title class="sr-only">Find anything</Dialog.Title>
            <Dialog.Description class="sr-only"
                >Type words; arrow keys choose, Enter opens. A label may be scanned here too.</Dialog.Description
            >
            <Command.Root label="What was found" shouldFilter={false} bind:value={selected}>
                <Command.Input
                    class="field w-full"
                    aria-controls="palette-found"
                    aria-label="Find a job, device, build, backup, act, person, setting or command"
                    placeholder="Job, device, build, backup, act, person, setting, command; or scan a label"
                    bind:value={typed}
                    {@attach scannable(() => (open = false))}
                />
                <Command.List
                    id="palette-found"
                    class="mt-2 max-h-[26rem] overflow-auto"
                    aria-label="What was found"
                    tabindex={0}
                >
                    {#each entries as entry (entry.key)}
                        <Command.Item
                            value={entry.key}
                            onSelect={() => run(entry)}
                            class={[
                                'flex min-h-11 cursor-pointer items-center gap-3 rounded-md px-3 py-1',
                                'data-selected:bg-jade-wash',
                            ]}
                            data-found={entry.what}
                        >
                            <span class="min-w-0 flex-1 leading-tight"
                                >{entry.title}<span class="block truncate text-sm text-quiet">{entry.about}</span></span
                            ><span class="text-sm text-quiet">{WHAT[entry.what] ?? entry.what}</span></Command.Item
                        >
                    {/each}
                </Command.List>
                {#if entries.length === 0}<p class="p-3 text-quiet" role="status">
                        {idle ? `Nothing has “${typed.trim()}” in its name.` : 'Looking…'}
                    </p>{/if}
            </Command.Root>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
