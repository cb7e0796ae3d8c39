import type { Job } from '../api/types';
import { KIND } from '../api/words';
import { times } from './times.svelte';

/** Amounts as people read them. */

export function bytes(n: number | null | undefined): string {
    if (n === null || n === undefined) return '–';
    const steps: [number, string][] = [
        [1e9, 'GB'],
        [1e6, 'MB'],
        [1e3, 'kB'],
    ];
    for (const [size, unit] of steps) {
        if (n >= size) return `${(n / size).toFixed(n >= 100 * size ? 0 : 1)} ${unit}`;
    }
    return `${n} B`;
}

export function minutes(n: number): string {
    if (n < 1) return `${Math.max(1, Math.round(n * 60))} s`;
    if (n < 90) return `${Math.round(n)} min`;
    return `${Math.floor(n / 60)} h ${Math.round(n % 60)} min`;
}

/** "1 item", "3 items". */
export const counted = (n: number, noun: string) => `${n} ${noun}${n === 1 ? '' : 's'}`;

/** A mark on a time axis, as fine as the span that is shown (in milliseconds) needs it. */
export function tickWords(at: Date, span: number): string {
    const days = span / 86_400_000;
    if (days < 4) return `${times.dayOfYear(at)}, ${times.clock(at)}`;
    return days < 120 ? times.dayOfYear(at) : times.month(at);
}

export const day = (time: string | Date) => times.day(time);
export const clock = (time: string | Date) => times.clock(time);
export const dayAndClock = (time: string | Date) => `${day(time)}, ${clock(time)}`;

/** A date and time of a form, in the shop's zone, as RFC 3339 in UTC. */
export const instant = (local: string) => times.instant(local);

/** A version as people write it, as the core does: 8.7.0 is 8.7, 9.3.0-rc.2 is 9.3 candidate 2. */
export const version = (v: string) =>
    v
        .replace(/^(\d+\.\d+)\.0(?=$|-)/, '$1')
        .replace(/-rc\.1$/, ' candidate')
        .replace(/-rc\.(\d+)$/, ' candidate $1')
        .replace(/-beta\.(\d+)$/, ' beta $1');

export const kindName = (kind: string) => (KIND as Record<string, string>)[kind] ?? kind;

const capitals = (words: string) => words.replaceAll('-', ' ').replace(/(^| )[a-z]/g, (letter) => letter.toUpperCase());

/** What is lost by name: accessories and apps of the device as people call them. */
export function accessoryName(device: Job['device'], id: string): string {
    const accessory = device?.accessories.find((a) => a.id === id);
    if (accessory === undefined) return capitals(id);
    const alike = device?.accessories.filter((a) => a.type === accessory.type) ?? [];
    return alike.length > 1 ? `${capitals(accessory.type)} (${id})` : capitals(accessory.type);
}

export const appName = (device: Job['device'], id: string) =>
    device?.apps.find((a) => a.id === id)?.name ?? capitals(id);
