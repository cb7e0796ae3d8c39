import type { Batch } from '../../api/types';
import { instant } from '../../parts/format';
import { times } from '../../parts/times.svelte';

const DAY = 86_400_000;
const NAMES = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];

/** When nobody is there, between two moments (milliseconds), by the shop's clock. */
export function absences(
    shop: Pick<Batch['workshop'], 'days' | 'from' | 'until'>,
    from: number,
    until: number,
): { from: number; until: number }[] {
    if (shop.days.length === 0) return [];
    const there: [number, number][] = [];
    for (let at = from - DAY; at < until + DAY; at += DAY) {
        const day = times.isoDay(new Date(at));
        const name = NAMES[new Date(`${day}T12:00:00Z`).getUTCDay()] ?? '';
        if (!(shop.days as string[]).includes(name)) continue;
        const begins = Date.parse(instant(`${day}T${shop.from}`));
        const ends = Date.parse(instant(`${day}T${shop.until}`));
        there.push([begins, ends > begins ? ends : ends + DAY]);
    }
    const away: { from: number; until: number }[] = [];
    let free = from;
    for (const [begins, ends] of there) {
        if (begins > free && begins < until + DAY) away.push({ from: free, until: Math.min(begins, until + DAY) });
        free = Math.max(free, ends);
    }
    if (free < until) away.push({ from: free, until: until + DAY });
    return away;
}
