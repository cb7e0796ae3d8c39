<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { ApiProblem } from '../../api/client';
    import { shelf, type SecondPlaceFields } from '../../api/shelf';
    import Ask from '../../parts/Ask.svelte';
    import { counted } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { notices } from '../../shell/notices.svelte';

    let { leads }: { leads: boolean } = $props();
    const queries = useQueryClient();
    const held = createQuery(() => ({
        queryKey: ['second-place'],
        queryFn: shelf.secondPlace,
        refetchInterval: 4000,
    }));
    const place = $derived(held.data?.place ?? null);
    type Draft = Required<SecondPlaceFields> & { server: boolean };
    let draft = $state<Draft | null>(null);
    let leaving = $state(false);
    const again = () => void queries.invalidateQueries({ queryKey: ['second-place'] });
    const save = createMutation(() => ({
        mutationFn: ({ server, ...fields }: Draft) =>
            shelf.keepSecondPlace(
                server ? fields : { ...fields, host: null, user: null, hostKey: null, secret: null, port: null },
            ),
        onSuccess: () => {
            draft = null;
            again();
        },
        onError: (e) => {
            if (!(e instanceof ApiProblem && e.atField)) notices.refused(e);
        },
    }));
    const forget = createMutation(() => ({
        mutationFn: shelf.forgetSecondPlace,
        onSettled: again,
        onError: (e: Error) => notices.refused(e),
    }));
    const begin = () =>
        (draft = {
            folder: place?.folder ?? '',
            host: place?.host ?? '',
            port: place?.port ?? 22,
            user: place?.user ?? '',
            hostKey: place?.hostKey ?? '',
            secret: '',
            demanded: place?.demanded ?? false,
            server: place?.host != null,
        });
</script>

<section class="panel" aria-labelledby="second-place">
    <div class="mb-1 flex items-center gap-3">
        <h2 id="second-place">Second place</h2>
        {#if leads && held.data && draft === null}
            <button class="act-quiet !min-h-9 ml-auto" onclick={begin}
                >{place === null ? 'Set a second place up' : 'Change it'}</button
            >{#if place !== null}<button class="act-quiet !min-h-9" onclick={() => (leaving = true)}
                    >Carry nothing there any more</button
                >{/if}
        {/if}
    </div>
    <p class="text-sm text-quiet">
        Another disk, or a server by SFTP, that sealed copies are carried to by themselves. None counts as there before
        every byte was read back there.
    </p>
    {#if held.data && place === null && draft === null}<div class="mt-2">
            <Notice tone="amber">All backups lie on one disk. When it fails, they are gone.</Notice>
        </div>
    {:else if held.data && place !== null}
        <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
            {#if place.folder !== null}<dt class="text-quiet">Where</dt>
                <dd class="font-mono break-all">
                    {place.host === null ? '' : `${place.user}@${place.host}:${place.port} `}{place.folder}
                </dd>{/if}
            <dt class="text-quiet">There</dt>
            <dd>
                {counted(held.data.there, 'backup')}{held.data.onTheWay > 0
                    ? `, ${held.data.onTheWay} more on the way`
                    : ''}
            </dd>
            <dt class="text-quiet">Before the erase line</dt>
            <dd>{place.demanded ? 'demanded: the line stays shut until the copy is there' : 'not demanded'}</dd>
        </dl>
        {#if held.data.problem !== null}<div class="mt-2"><Notice tone="amber">{held.data.problem}</Notice></div>{/if}
        {#if place.sameDisk}<div class="mt-2">
                <Notice tone="amber"
                    >This folder lies on the disk that the backups lie on: when it fails, both are gone. Name a folder
                    of another disk.</Notice
                >
            </div>{/if}
    {/if}
    {#if draft !== null}{@const d = draft}
        <form
            class="mt-2 grid grid-cols-2 gap-3 border-t border-edge pt-3 text-sm"
            onsubmit={(e) => {
                e.preventDefault();
                save.mutate(d);
            }}
        >
            <fieldset class="col-span-2 flex gap-6">
                <legend class="sr-only">What it is</legend>
                <label class="flex min-h-9 items-center gap-2"
                    ><input
                        type="radio"
                        class="h-4 w-4 accent-[var(--jade)]"
                        name="what"
                        value={false}
                        bind:group={d.server}
                    />a folder of this machine, on another disk</label
                >
                <label class="flex min-h-9 items-center gap-2"
                    ><input
                        type="radio"
                        class="h-4 w-4 accent-[var(--jade)]"
                        name="what"
                        value={true}
                        bind:group={d.server}
                    />a server, by SFTP</label
                >
            </fieldset>
            <label class="flex flex-col gap-1"
                >Folder, in full<input class="field font-mono" required name="folder" bind:value={d.folder} /></label
            >
            {#if d.server}
                <span class="grid grid-cols-[1fr_6rem] gap-2">
                    <label class="flex flex-col gap-1"
                        >Host<input class="field font-mono" required name="host" bind:value={d.host} /></label
                    ><label class="flex flex-col gap-1"
                        >Port<input
                            class="field"
                            type="number"
                            min="1"
                            max="65535"
                            name="port"
                            bind:value={d.port}
                        /></label
                    >
                </span>
                <label class="flex flex-col gap-1"
                    >Signs in as<input class="field font-mono" required name="user" bind:value={d.user} /></label
                >
                <label class="flex flex-col gap-1"
                    >The host’s key, as ssh-keygen -l prints it<input
                        class="field font-mono"
                        placeholder="SHA256:… it is shown when this is left empty"
                        name="hostKey"
                        bind:value={d.hostKey}
                    /></label
                >
                <label class="col-span-2 flex flex-col gap-1"
                    >Private key, or password{place?.secretHeld
                        ? '; the held one stays where this is empty'
                        : ''}<textarea
                        class="field font-mono text-xs"
                        rows="3"
                        autocomplete="off"
                        name="secret"
                        bind:value={d.secret}></textarea></label
                >
            {/if}
            <label class="col-span-2 flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-4 w-4 accent-[var(--jade)]"
                    name="demanded"
                    bind:checked={d.demanded}
                />the erase line stays shut until the sealed copy is there</label
            >
            <div class="flex gap-2">
                <button class="act" disabled={save.isPending}
                    >{save.isPending ? 'Trying it…' : 'Try it and save'}</button
                ><button class="act-quiet" type="button" onclick={() => (draft = null)}>Not now</button>
            </div>
        </form>
    {/if}
    <Ask
        bind:open={leaving}
        title="Carry nothing there any more?"
        yes="Carry nothing there"
        no="Go on carrying"
        busy={forget.isPending}
        onyes={() => forget.mutate()}>What is there stays there, and is not shown on the Shelf any more.</Ask
    >
</section>
