<script lang="ts">
    import { Keyboard, LogOut, Moon, Search, Sun } from '@lucide/svelte';
    import Router, { link, push, router } from 'svelte-spa-router';
    import AlmanacView from '../views/almanac/AlmanacView.svelte';
    import BenchView from '../views/bench/BenchView.svelte';
    import IntakeView from '../views/intake/IntakeView.svelte';
    import JobView from '../views/job/JobView.svelte';
    import DeviceLabel from '../views/job/DeviceLabel.svelte';
    import SheetView from '../views/job/SheetView.svelte';
    import JournalView from '../views/journal/JournalView.svelte';
    import LineView from '../views/job/LineView.svelte';
    import RigView from '../views/rig/RigView.svelte';
    import BagLabel from '../views/shelf/BagLabel.svelte';
    import ShelfView from '../views/shelf/ShelfView.svelte';
    import SettingsView from '../views/settings/SettingsView.svelte';
    import HandWatch from './HandWatch.svelte';
    import Logo from './Logo.svelte';
    import NotFound from './NotFound.svelte';
    import Palette from './Palette.svelte';
    import PasswordAgain from './PasswordAgain.svelte';
    import { session } from './session.svelte';
    import Shortcuts from './Shortcuts.svelte';
    import { theme } from './theme.svelte';

    const PLACES = [
        { path: '/', name: 'Bench', key: 'b' },
        { path: '/almanac', name: 'Almanac', key: 'a' },
        { path: '/shelf', name: 'Shelf', key: 'h' },
        { path: '/rig', name: 'Rig', key: 'r' },
        { path: '/journal', name: 'Journal', key: 'j' },
        { path: '/settings', name: 'Settings', key: 's' },
    ];
    const routes = {
        '/': BenchView,
        '/take-in': IntakeView,
        '/almanac': AlmanacView,
        '/almanac/:model': AlmanacView,
        '/shelf': ShelfView,
        '/shelf/:bag/label': BagLabel,
        '/rig': RigView,
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

    function onkeydown(event: KeyboardEvent) {
        const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, select') !== null;
        if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
            event.preventDefault();
            palette = true;
        } else if (!typing && event.key === '?') {
            shortcuts = true;
        } else if (!typing && !event.ctrlKey && !event.altKey && !event.metaKey) {
            const place = event.key === 't' ? '/take-in' : PLACES.find((p) => p.key === event.key)?.path;
            if (place !== undefined) void push(place);
        }
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
        'flex min-h-14 flex-wrap items-center gap-x-3 border-b border-edge bg-panel px-4 py-1',
        'xl:gap-6 xl:px-6 print:hidden',
    ]}
>
    <a href="/" use:link class="flex items-center gap-2 font-semibold whitespace-nowrap"
        ><Logo /><span class="hidden lg:inline">Jade Step</span><span class="sr-only lg:hidden">Jade Step</span></a
    >
    <nav aria-label="Places" class="flex gap-1">
        {#each PLACES as p (p.path)}<a
                href={p.path}
                use:link
                aria-current={here(p.path) ? 'page' : undefined}
                class="rounded-md px-2 py-2 hover:bg-sunken xl:px-3 {here(p.path)
                    ? 'font-semibold underline decoration-jade decoration-2 underline-offset-8'
                    : ''}">{p.name}</a
            >{/each}
    </nav>
    <div class="ml-auto flex items-center gap-2">
        <button class="act-quiet" onclick={() => (palette = true)}
            ><Search size={16} aria-hidden="true" /><span class="hidden whitespace-nowrap lg:inline">Go to…</span><span
                class="sr-only lg:hidden">Go to…</span
            >
            <span class="key hidden whitespace-nowrap xl:inline">Ctrl K</span></button
        >
        <button class="act-quiet" onclick={() => (shortcuts = true)} aria-label="Keyboard shortcuts"
            ><Keyboard size={18} /></button
        >
        <button
            class="act-quiet"
            onclick={() => theme.toggle()}
            aria-label={theme.dark ? 'Light colours' : 'Dark colours'}
            >{#if theme.dark}<Sun size={18} />{:else}<Moon size={18} />{/if}</button
        >
        <span class="ml-1 hidden text-sm whitespace-nowrap md:inline"
            ><span class="font-semibold">{session.person?.name}</span>
            <span class="hidden text-quiet xl:inline">{session.person?.role}</span></span
        >
        <button class="act-quiet" onclick={() => session.signOut()} aria-label="Sign out"><LogOut size={18} /></button>
    </div>
</header>
<main id="main" tabindex="-1" class="mx-auto max-w-[1800px] px-6 py-4 outline-none print:max-w-none print:p-0">
    <Router {routes} />
</main>
<HandWatch />
<PasswordAgain />
<Palette bind:open={palette} />
<Shortcuts bind:open={shortcuts} />
