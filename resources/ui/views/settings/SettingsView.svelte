<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { router } from 'svelte-spa-router';
    import { almanac } from '../../api/almanac';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import BenchesPanel from './BenchesPanel.svelte';
    import KeepingPanel from './KeepingPanel.svelte';
    import KeyRow from './KeyRow.svelte';
    import PreferencesPanel from './PreferencesPanel.svelte';
    import ShopPanel from './ShopPanel.svelte';
    import PeoplePanel from './PeoplePanel.svelte';
    import SecondPlacePanel from './SecondPlacePanel.svelte';
    import SessionsPanel from './SessionsPanel.svelte';
    import SignInPanel from './SignInPanel.svelte';
    import StoragePanel from './StoragePanel.svelte';
    import WatchingPanel from './WatchingPanel.svelte';
    import TokensPanel from './TokensPanel.svelte';
    import VendorForm from './VendorForm.svelte';

    const queries = useQueryClient();
    const vendors = createQuery(() => ({ queryKey: ['vendors'], queryFn: almanac.vendors, refetchInterval: 15_000 }));
    const again = () =>
        Promise.all([
            queries.invalidateQueries({ queryKey: ['vendors'] }),
            queries.invalidateQueries({ queryKey: ['almanac'] }),
        ]);
    const fail = (e: Error) => notices.refused(e);
    const look = createMutation(() => ({ mutationFn: almanac.lookForKeys, onSuccess: again, onError: fail }));
    const decide = createMutation(() => ({
        mutationFn: (d: { vendor: string; key: number; state: 'accepted' | 'refused'; name: string | null }) =>
            almanac.decideKey(d.vendor, d.key, d.state, d.name),
        onSuccess: again,
        onError: fail,
    }));
    let adding = $state(false);
    // the address names the part that is wanted
    const PARTS: [string, string][] = [
        ['preferences', 'Your preferences'],
        ['sign-in', 'Your sign-in'],
        ['shop', 'The shop'],
        ...(session.leads ? ([['people', 'People']] as [string, string][]) : []),
        ['benches', 'Benches'],
        ['storage', 'Packages and bags'],
        ['keeping', 'At night'],
        ['second-place', 'Second place'],
        ['watching', 'Watching'],
        ['sessions', 'Sessions'],
        ['tokens', 'Tokens'],
        ['vendors', 'Vendors'],
    ];
    $effect(() => {
        const part = new URLSearchParams(router.querystring ?? '').get('at');
        if (part === null) return;
        const timer = setTimeout(() => {
            const heading = document.getElementById(part);
            heading?.setAttribute('tabindex', '-1');
            heading?.focus({ preventScroll: true });
            heading?.scrollIntoView({ block: 'start' });
        }, 150);
        return () => clearTimeout(timer);
    });
</script>

<svelte:head><title>Settings · Jade Step</title></svelte:head>
<div class="mb-3 flex items-baseline gap-4">
    <h1>Settings</h1>
    <p class="text-quiet">People, benches, places, keep rules, and the vendors whose word is taken.</p>
    {#if session.leads}<button class="act-quiet ml-auto" onclick={() => (adding = !adding)}
            >{adding ? 'Not now' : 'Add a vendor'}</button
        >{/if}
</div>
<nav class="mb-3 flex flex-wrap gap-x-1 text-sm" aria-label="Parts of the settings">
    {#each PARTS as [part, name] (part)}<a
            class="flex min-h-9 items-center px-2 underline decoration-edge underline-offset-4 hover:decoration-jade"
            href="#/settings?at={part}">{name}</a
        >{/each}
</nav>
<div class="mb-4 flex flex-col gap-4">
    <PreferencesPanel /><SignInPanel /><ShopPanel leads={session.leads} />{#if session.leads}<PeoplePanel
        />{/if}<BenchesPanel leads={session.leads} /><StoragePanel
        leads={session.leads}
        mayAct={session.mayAct}
    /><KeepingPanel leads={session.leads} /><SecondPlacePanel leads={session.leads} /><WatchingPanel
        leads={session.leads}
    /><SessionsPanel /><TokensPanel />
</div>
<h2 id="vendors" class="mb-2">Vendors and their keys</h2>
{#if !session.leads}<div class="mb-3">
        <Notice>A lead changes vendors and decides on keys. You can look.</Notice>
    </div>{/if}
{#if adding}<section class="panel mb-4" aria-label="A new vendor">
        <VendorForm vendor={null} onsaved={() => (adding = false)} />
    </section>{/if}
{#if vendors.isPending}<p class="text-quiet" role="status">Reading the settings…</p>
{:else if !vendors.data}<Notice tone="amber">{vendors.error?.message}</Notice>
{:else if vendors.data.vendors.length === 0}<Notice
        >No vendor is set up yet, so nothing is known to be signed. Add one, or take a catalogue in from a file in the
        Almanac.</Notice
    >
{:else}
    <div class="flex flex-col gap-4">
        {#each vendors.data.vendors as vendor (vendor.id)}
            <section class="panel" aria-labelledby="v-{vendor.id}" data-vendor={vendor.id}>
                <h2 id="v-{vendor.id}" class="mb-2">{vendor.name} <span class="code">{vendor.id}</span></h2>
                {#if session.leads}<VendorForm {vendor} onsaved={() => {}} />
                {:else}<p class="text-sm">
                        <span class="font-mono">{vendor.address ?? 'files only'}</span>, asked every
                        {vendor.refreshMinutes} minutes
                    </p>{/if}
                {#if vendor.problem !== null}<div class="mt-3">
                        <Notice tone="amber"
                            >{vendor.problem.detail}
                            <span class="code !text-inherit">{vendor.problem.reason}</span></Notice
                        >
                    </div>{/if}
                <h3 class="mt-4 flex items-center gap-3 text-sm font-semibold">
                    Keys {#if session.leads && vendor.address !== null}<button
                            class="act-quiet !min-h-8 text-sm font-normal"
                            disabled={look.isPending}
                            onclick={() => look.mutate(vendor.id)}>Look for new keys</button
                        >{/if}
                </h3>
                <ul class="mt-1">
                    {#each vendor.keys as key (key.id)}
                        <KeyRow
                            {key}
                            vendorName={vendor.name}
                            leads={session.leads}
                            busy={decide.isPending}
                            ondecide={(state, name) => decide.mutate({ vendor: vendor.id, key: key.id, state, name })}
                        />
                    {:else}<li class="text-sm text-quiet">
                            None was seen yet. Without an accepted key nothing of this vendor is believed over the
                            network.
                        </li>{/each}
                </ul>
            </section>
        {/each}
    </div>
{/if}
<p class="mt-6 text-sm text-quiet">Jade Step {import.meta.env.PRODUCT_VERSION}</p>
