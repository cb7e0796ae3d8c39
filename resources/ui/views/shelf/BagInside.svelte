<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { onDestroy } from 'svelte';
    import { itemAddress, shelf } from '../../api/shelf';
    import type { Bag, Tide } from '../../api/types';
    import { bytes, counted, dayAndClock, kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { scannable } from '../../parts/scan';
    import { session } from '../../shell/session.svelte';
    import TideLine from './TideLine.svelte';

    /**
     * What a bag holds: amounts at once, the owner's things when somebody asks for them. Into an encrypted one it is
     * looked with its passphrase, which stays in this page's memory for the length of the look and goes with every
     * question.
     */
    let { bag }: { bag: Bag } = $props();
    const encrypted = $derived(bag.encryption === 'openpgp');
    let typed = $state('');
    let passphrase = $state<string | null>(null);
    let picked = $state<string | null>(null);
    let find = $state('');
    let open = $state<{ path: string; text: string } | null>(null);
    let wrong = $state<string | null>(null);
    let opened = $state<{ counts: Record<string, number>; tide: Tide } | null>(null);
    let shown = $state(false);
    let opening = $state(false);
    let pictures = $state<Record<string, string>>({});

    const outside = createQuery(() => ({
        queryKey: ['shelf', bag.id, 'tide', bag.items],
        queryFn: () => shelf.tide(bag.id),
        enabled: !encrypted && bag.state !== 'writing' && bag.closedFor === null,
    }));
    const tide = $derived(encrypted ? (opened?.tide ?? null) : (outside.data ?? null));
    const counts = $derived(encrypted ? (opened?.counts ?? {}) : bag.counts);
    const kinds = $derived(Object.entries(counts).filter(([, n]) => n > 0));
    const kind = $derived(picked ?? kinds[0]?.[0] ?? '');
    const looking = $derived(find.trim() !== '');
    const items = createQuery(() => ({
        queryKey: ['shelf', bag.id, 'inside', looking ? '' : kind, find.trim(), passphrase === null],
        queryFn: () => {
            const about = looking ? { find: find.trim() } : { kind };
            return encrypted
                ? shelf.look(bag.id, passphrase ?? '', { kind: '', ...about })
                : looking
                  ? shelf.find(bag.id, find.trim())
                  : shelf.items(bag.id, kind);
        },
        enabled: shown && kind !== '' && (!encrypted || passphrase !== null),
        gcTime: encrypted ? 0 : 300_000,
    }));
    const listed = $derived(items.data?.items ?? []);
    const isPicture = (path: string) => /\.(jpe?g|png)$/i.test(path);
    const isText = (path: string) => /\.(vcf|ics|md|txt|jsonl?|csv)$/i.test(path);
    const asPictures = $derived(!looking && (kind === 'photos' || kind === 'wallpaper'));
    const shownPictures = $derived(asPictures ? listed.filter((i) => isPicture(i.path)).slice(0, 24) : []);

    async function begin() {
        opening = true;
        wrong = null;
        try {
            opened = await shelf.look(bag.id, typed, {});
            passphrase = typed;
        } catch (e) {
            wrong = e instanceof Error ? e.message : String(e);
        }
        typed = '';
        opening = false;
    }

    function end() {
        passphrase = opened = open = picked = null;
        find = '';
        shown = false;
        Object.values(pictures).forEach((p) => URL.revokeObjectURL(p));
        pictures = {};
    }
    onDestroy(end);

    async function text(of: string, path: string): Promise<string> {
        if (passphrase !== null) return (await shelf.lookAt(bag.id, of, path, passphrase)).text();
        const answer = await fetch(itemAddress(bag.id, of, path));
        if (!answer.ok) throw new Error();
        return answer.text();
    }
    async function read(of: string, path: string) {
        const told = await text(of, path).catch(() => null);
        open = {
            path,
            text: told?.slice(0, 20_000) ?? 'This item cannot be read. Verify the bag, to see what is wrong.',
        };
    }
    // one after the other, since each opens the bag anew
    $effect(() => {
        const [look, of, wanted] = [passphrase, kind, shownPictures];
        if (look === null) return;
        let left = false;
        void (async () => {
            for (const i of wanted) {
                if (left || pictures[`${of}/${i.path}`] !== undefined) continue;
                const picture = await shelf.lookAt(bag.id, of, i.path, look).catch(() => null);
                if (picture !== null && !left) pictures[`${of}/${i.path}`] = URL.createObjectURL(picture);
            }
        })();
        return () => (left = true);
    });
    const source = (of: string, path: string) =>
        encrypted ? pictures[`${of}/${path}`] : itemAddress(bag.id, of, path);
</script>

{#if bag.closedFor !== null}
    <Notice
        >This bag is closed for the key <span class="font-mono break-all">{bag.closedFor}</span>: only who has its
        secret part opens it, and not here.</Notice
    >
{:else if encrypted && passphrase === null}
    {#if session.mayAct}
        <form
            class="flex flex-wrap items-end gap-2"
            aria-label="Look into this bag"
            onsubmit={(e) => {
                e.preventDefault();
                void begin();
            }}
        >
            <label class="flex flex-1 flex-col text-sm"
                >Its passphrase<input
                    class="field"
                    type="password"
                    name="look"
                    autocomplete="off"
                    required
                    bind:value={typed}
                /></label
            >
            <button class="act-quiet" disabled={opening || typed === ''}>{opening ? 'Opening…' : 'Look into it'}</button
            >
        </form>
        <p class="mt-1 text-sm text-quiet">
            This bag is encrypted. It is opened for this look only; the passphrase is kept nowhere.
        </p>
        {#if wrong !== null}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">{wrong}</p>{/if}
    {:else}<Notice>This bag is encrypted. What it holds is told by its passphrase only.</Notice>{/if}
{:else}
    {#if encrypted}<p class="mb-2 flex items-center gap-3 text-sm">
            <span class="flex-1">Opened for this look.</span><button class="act-quiet !min-h-9" onclick={end}
                >End the look</button
            >
        </p>{/if}
    {#if outside.isError}<Notice tone="amber">{outside.error.message}</Notice>{/if}
    {#if tide}<TideLine
            {tide}
            {counts}
            chosen={shown && !looking ? kind : null}
            onkind={shown
                ? (k) => {
                      picked = k;
                      find = '';
                      open = null;
                  }
                : null}
        />{:else if outside.isPending && !encrypted}<p class="text-quiet" role="status">Reading what it holds…</p>{/if}
    {#if !shown && session.mayAct && kinds.length > 0}
        <div class="mt-4 flex flex-wrap items-center gap-3">
            <button class="act-quiet" onclick={() => (shown = true)}>Show the owner’s things</button>
            <span class="text-sm text-quiet">They are private. The Journal notes that you looked.</span>
        </div>
    {:else if shown}
        <div class="mt-4 flex flex-wrap items-center gap-3">
            <h2 class="flex-1">{looking ? 'What was found' : kindName(kind)}</h2>
            <input
                class="field w-72 max-w-full !min-h-10"
                type="search"
                aria-label="Find in this bag"
                {@attach scannable()}
                placeholder="Find in this bag"
                bind:value={find}
            />
            <button class="act-quiet" onclick={() => (shown = false)}>Hide them</button>
        </div>
        {#if items.isError}<div class="mt-2"><Notice tone="amber">{items.error.message}</Notice></div>{/if}
        {#if looking && items.data}<p class="text-sm text-quiet" role="status">
                {listed.length === 0
                    ? `Nothing here has “${find.trim()}” in its name.`
                    : `${counted(listed.length + (items.data?.more ?? 0), 'item')} found`}
            </p>{/if}
        {#if asPictures}
            <ul
                class="mt-2 flex snap-x gap-3 overflow-x-auto pb-2"
                aria-label="Pictures, the first {shownPictures.length}"
            >
                {#each shownPictures as i (i.path)}<li class="w-48 shrink-0 snap-start text-xs text-quiet">
                        {#if source(kind, i.path) !== undefined}<a
                                href={source(kind, i.path)}
                                target="_blank"
                                rel="noreferrer"
                                ><img
                                    class="aspect-[3/2] w-full rounded object-cover"
                                    loading="lazy"
                                    src={source(kind, i.path)}
                                    alt={i.path}
                                /></a
                            >{:else}<span class="block aspect-[3/2] w-full rounded bg-sunken"></span>{/if}
                        <span class="block truncate font-mono" title={i.path}>{i.path}</span>
                        {dayAndClock(i.modifiedAt)}, {bytes(i.bytes)}
                    </li>{/each}
            </ul>
        {/if}
        {#if !asPictures || listed.length > shownPictures.length}
            <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
            <ul class="mt-2 max-h-[28rem] overflow-auto text-sm" tabindex="0" aria-label="Items">
                {#each listed as i (i.kind + i.path)}<li class="flex gap-3 border-t border-edge py-0.5">
                        <span class="flex-1 truncate font-mono"
                            >{#if isText(i.path)}<button
                                    class="underline decoration-edge underline-offset-4"
                                    onclick={() => read(i.kind, i.path)}>{looking ? `${i.kind}/` : ''}{i.path}</button
                                >{:else}{looking ? `${i.kind}/` : ''}{i.path}{/if}</span
                        ><span class="text-quiet">{bytes(i.bytes)}</span><span class="text-quiet"
                            >{dayAndClock(i.modifiedAt)}</span
                        >
                    </li>{/each}
            </ul>
            {#if open}<p class="mt-2 text-sm text-quiet">{open.path}</p>
                <pre
                    class={[
                        'max-h-72 overflow-auto rounded-md bg-sunken p-2',
                        'font-mono text-xs whitespace-pre-wrap',
                    ]}>{open.text}</pre>
            {/if}
        {/if}
        {#if items.data && items.data.more > 0}<p class="text-sm text-quiet">and {items.data.more} more</p>{/if}
    {/if}
{/if}
