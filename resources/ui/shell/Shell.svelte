<script lang="ts">
    import { Keyboard, LogOut, Moon, Search, Sun } from '@lucide/svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { onMount } from 'svelte';
    import Router, { link, push, router } from 'svelte-spa-router';
    import { api } from '../api/jobs';
    import { clock } from '../parts/format';
    import { times } from '../parts/times.svelte';
    import BatchesView from '../views/batches/BatchesView.svelte';
    import BatchView from '../views/batches/BatchView.svelte';
    import MakeBatch from '../views/batches/MakeBatch.svelte';
    import AlmanacView from '../views/almanac/AlmanacView.svelte';
    import BenchView from '../views/bench/BenchView.svelte';
    import GlossaryView from '../views/glossary/GlossaryView.svelte';
    import IntakeView from '../views/intake/IntakeView.svelte';
    import JobView from '../views/job/JobView.svelte';
    import DeviceLabel from '../views/job/DeviceLabel.svelte';
    import SheetView from '../views/job/SheetView.svelte';
    import JournalView from '../views/journal/JournalView.svelte';
    import LineView from '../views/job/LineView.svelte';
    import ReportView from '../views/reports/ReportView.svelte';
    import RigView from '../views/rig/RigView.svelte';
    import BagLabel from '../views/shelf/BagLabel.svelte';
    import BagView from '../views/shelf/BagView.svelte';
    import CompareView from '../views/shelf/CompareView.svelte';
    import ShelfView from '../views/shelf/ShelfView.svelte';
    import SettingsView from '../views/settings/SettingsView.svelte';
    import ConnectionBar from './ConnectionBar.svelte';
    import { focusNext } from './focus';
    import Guide from './Guide.svelte';
    import HandWatch from './HandWatch.svelte';
    import { isShortcut } from './keys';
    import Logo from './Logo.svelte';
    import NoticeList from './NoticeList.svelte';
    import { notices } from './notices.svelte';
    import NotFound from './NotFound.svelte';
    import Palette from './Palette.svelte';
    import PasswordAgain from './PasswordAgain.svelte';
    import { session } from './session.svelte';
    import SessionEnded from './SessionEnded.svelte';
    import Shortcuts from './Shortcuts.svelte';
    import { theme } from './theme.svelte';

    const PLACES = [
        { path: '/', name: 'Bench', key: 'b' },
        { path: '/batches', name: 'Batches', key: 'f' },
        { path: '/almanac', name: 'Almanac', key: 'a' },
        { path: '/shelf', name: 'Shelf', key: 'h' },
        { path: '/rig', name: 'Rig', key: 'r' },
        { path: '/journal', name: 'Journal', key: 'j' },
        { path: '/settings', name: 'Settings', key: 's' },
    ];
    const routes = {
        '/': BenchView,
        '/take-in': IntakeView,
        '/batches': BatchesView,
        '/batches/new': MakeBatch,
        '/batches/:id': BatchView,
        '/almanac': AlmanacView,
        '/almanac/:model': AlmanacView,
        '/shelf': ShelfView,
        '/shelf/compare': CompareView,
        '/shelf/compare/:one/:other': CompareView,
        '/shelf/:bag/label': BagLabel,
        '/shelf/:bag': BagView,
        '/glossary': GlossaryView,
        '/rig': RigView,
        '/reports': ReportView,
        '/journal': JournalView,
        '/settings': SettingsView,
        '/jobs/:id': JobView,
        '/jobs/:id/line': LineView,
        '/jobs/:id/sheet': SheetView,
        '/jobs/:id/label': DeviceLabel,
        '/jobs/:id/:stage': JobView,
        '*': NotFound,
    };
    const here = (path: string) =>
        path === '/'
            ? ['/', '/take-in'].includes(router.location) || router.location.startsWith('/jobs')
            : router.location.startsWith(path);
    let palette = $state(false);
    let shortcuts = $state(false);
    const queries = useQueryClient();
    let minute = $state(new Date());
    onMount(() => {
        const timer = setInterval(() => (minute = new Date()), 10_000);
        return () => clearInterval(timer);
    });
    $effect(() => {
        document.documentElement.dataset.density = session.person?.preferences.density ?? 'roomy';
    });
    // on another page the focus that went with the old one is at the beginning of the new
    let was = router.location;
    $effect(() => {
        if (router.location === was) return;
        was = router.location;
        window.scrollTo({ top: 0 });
        focusNext();
    });

    /** The next job that needs a hand, past the one that is looked at. */
    async function nextHand() {
        const bench = await queries.fetchQuery({ queryKey: ['bench'], queryFn: api.bench, staleTime: 0 });
        const wanted = bench.open.filter((j) => j.needsHand).map((j) => j.id);
        const at = Number(/^\/jobs\/(\d+)/.exec(router.location)?.[1] ?? 0);
        const next = wanted[wanted.indexOf(at) + 1] ?? wanted[0];
        if (next === undefined) notices.success('Nothing needs a hand now.');
        else if (next === at && router.location === `/jobs/${at}`) notices.success('Only this job needs a hand now.');
        else void push(`/jobs/${next}`);
    }

    function onkeydown(event: KeyboardEvent) {
        if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
            event.preventDefault();
            palette = true;
            return;
        }
        if (!isShortcut(event)) return;
        const place = event.key === 't' ? '/take-in' : PLACES.find((p) => p.key === event.key)?.path;
        if (event.key === '?') shortcuts = true;
        else if (event.key === 'n') void nextHand();
        else if (place !== undefined) void push(place);
        else return;
        event.preventDefault();
    }
</script>

<svelte:window {onkeydown} />
<a
    href="#main"
    class="sr-only focus:not-sr-only focus:absolute focus:z-10 focus:bg-panel focus:p-2"
    onclick={(e) => {
        e.preventDefault();
        document.getElementById('main')?.focus();
    }}>Skip to the page</a
>
<header
    class={[
        'flex min-h-14 flex-wrap items-center gap-x-3 gap-y-1 border-b border-edge bg-panel px-4 py-1',
        'xl:px-6 2xl:gap-x-5 print:hidden',
    ]}
>
    <a href="/" use:link class="flex min-h-11 items-center gap-2 font-semibold whitespace-nowrap"
        ><Logo /><span class="hidden lg:inline">Jade Step</span><span class="sr-only lg:hidden">Jade Step</span></a
    >
    <nav aria-label="Places" class="flex flex-wrap gap-1">
        {#each PLACES as p (p.path)}<a
                href={p.path}
                use:link
                aria-current={here(p.path) ? 'page' : undefined}
                class="flex min-h-11 items-center rounded-md px-2 hover:bg-sunken 2xl:px-3 {here(p.path)
                    ? 'font-semibold underline decoration-jade decoration-2 underline-offset-8'
                    : ''}">{p.name}</a
            >{/each}
    </nav>
    <div class="ml-auto flex flex-wrap items-center gap-2">
        <span class="text-sm whitespace-nowrap text-quiet" title="All times here are {times.zone}" data-shop-clock
            >{clock(minute)} <span class="text-xs">{times.zoneName}</span></span
        >
        <button class="act-quiet" onclick={() => (palette = true)}
            ><Search size="1.05em" aria-hidden="true" /><span class="hidden whitespace-nowrap lg:inline">Find…</span
            ><span class="sr-only lg:hidden">Find…</span>
            <span class="key hidden whitespace-nowrap xl:inline">Ctrl K</span></button
        >
        <NoticeList />
        <button class="act-quiet" onclick={() => (shortcuts = true)} aria-label="Keyboard shortcuts"
            ><Keyboard size="1.15em" /></button
        >
        <button
            class="act-quiet"
            onclick={() => theme.toggle()}
            aria-label={theme.dark ? 'Light colours' : 'Dark colours'}
            >{#if theme.dark}<Sun size="1.15em" />{:else}<Moon size="1.15em" />{/if}</button
        >
        <a
            href="/settings?at=preferences"
            use:link
            class="ml-1 hidden min-h-11 items-center text-sm whitespace-nowrap md:flex"
            ><span class="font-semibold">{session.person?.name}</span>
            <span class="ml-1 hidden text-quiet xl:inline">{session.person?.role}</span></a
        >
        <button class="act-quiet" onclick={() => session.signOut()} aria-label="Sign out"
            ><LogOut size="1.15em" /></button
        >
    </div>
</header>
<ConnectionBar />
<main
    id="main"
    tabindex="-1"
    class="@container mx-auto max-w-[1880px] px-4 pt-4 pb-24 outline-none xl:px-6 print:max-w-none print:p-0"
>
    <Guide />
    <Router {routes} />
</main>
<HandWatch />
<PasswordAgain />
<SessionEnded />
<Palette bind:open={palette} />
<Shortcuts bind:open={shortcuts} />
