import { push } from 'svelte-spa-router';
import { almanac } from '../api/almanac';
import { calls } from './calls.svelte';
import { notices } from './notices.svelte';
import { session } from './session.svelte';
import { theme } from './theme.svelte';

export type Command = { what: 'place' | 'setting' | 'command'; title: string; about: string; run: () => void };

const place = (title: string, path: string, about = ''): Command => ({
    what: 'place',
    title,
    about,
    run: () => void push(path),
});
const setting = (title: string, at: string, about: string): Command => ({
    what: 'setting',
    title,
    about,
    run: () => void push(`/settings?at=${at}`),
});
const command = (title: string, run: () => void, about = ''): Command => ({ what: 'command', title, about, run });

/** What the palette knows by itself: places, settings, and what can be done from anywhere. */
export function commands(): Command[] {
    const chosen = session.person?.preferences;
    return [
        place('Bench', '/', 'ports and jobs'),
        place('Batches', '/batches', 'several devices by a deadline'),
        place('Almanac', '/almanac', 'models, builds, windows'),
        place('Estimates', '/almanac?as=estimates', 'how long windows are likely to hold'),
        place('Shelf', '/shelf', 'bags, backups'),
        place('Compare two bags', '/shelf/compare', 'Shelf'),
        place('Rig, for practice', '/rig', 'simulated devices'),
        place('Journal', '/journal', 'who did what'),
        place('Settings', '/settings'),
        place('Glossary', '/glossary', 'what the terms of the trade mean'),
        place('Take in without a cable', '/take-in', 'by hand, or several from a table'),
        setting('Your sign-in', 'sign-in', 'password, second factor'),
        setting('Your preferences', 'preferences', 'shortcuts, sound, density, guide'),
        setting('The shop', 'shop', 'name, contact, logo, time zone, date form, first day of the week'),
        setting('Benches and ports', 'benches', 'device link, labels'),
        setting('Places and packages', 'storage', 'folders, limits'),
        setting('At night, and how long', 'keeping', 'nightly backups, keep rules'),
        setting('Second place', 'second-place', 'where sealed copies are kept too'),
        setting('Watching', 'watching', 'health, mail, webhooks, what was raised of late'),
        ...(session.leads ? [place('Reports', '/reports', 'a month in figures: jobs, minutes, losses, bytes')] : []),
        setting('Vendors and keys', 'vendors', 'addresses, thumbprints'),
        setting('Where you are signed in', 'sessions', 'sessions'),
        setting('Your tokens for scripts', 'tokens', 'API'),
        ...(session.leads ? [setting('People', 'people', 'roles, links for a new password')] : []),
        ...(session.mayAct
            ? [
                  command('Take in all that are plugged in', () => void push('/?together=take-in'), 'Bench'),
                  command('Make a batch', () => void push('/batches/new'), 'Batches'),
                  command('Back up several', () => void push('/?together=back-up'), 'Bench'),
                  command('Ask the vendors now', () => void askVendors(), 'Almanac'),
              ]
            : []),
        command(theme.dark ? 'Light colours' : 'Dark colours', () => theme.toggle()),
        command(calls.on ? 'Do not call me any more' : 'Call me when a hand is needed', () => void calls.toggle()),
        ...(chosen === undefined
            ? []
            : [
                  command(
                      chosen.shortcuts ? 'Switch shortcuts of one letter off' : 'Switch shortcuts of one letter on',
                      () => void session.prefer({ ...chosen, shortcuts: !chosen.shortcuts }),
                  ),
                  command(
                      chosen.guided ? 'Put the guide away' : 'Show the guide',
                      () => void session.prefer({ ...chosen, guided: !chosen.guided }),
                      'first crossing, for practice',
                  ),
              ]),
        command('Sign out', () => void session.signOut()),
    ];
}

async function askVendors(): Promise<void> {
    try {
        const { results } = await almanac.refresh();
        const failed = results.find((r) => r.problem !== null);
        if (failed !== undefined) notices.error(`${failed.vendor}: ${failed.problem?.detail}`);
    } catch (e) {
        notices.error((e as Error).message);
    }
}

/** How well it fits: 0 where a word does not occur. The same order as the server gives what it finds. */
export function rank(typed: string, title: string, about: string): number {
    let sum = 0;
    for (const word of typed.toLowerCase().split(/\s+/).filter(Boolean)) {
        const best = 2 * of(word, title) || of(word, about);
        if (best === 0) return 0;
        sum += best;
    }
    return sum;
}

function of(word: string, text: string): number {
    const lower = text.toLowerCase();
    if (lower === word) return 4;
    if (lower.startsWith(word)) return 3;
    const at = lower.indexOf(word);
    if (at < 0) return 0;
    return /[\p{L}\p{N}]/u.test(lower[at - 1] ?? ' ') ? 1 : 2;
}
