/** Amounts as people read them. */

export function bytes(n: number | null | undefined): string {
    if (n === null || n === undefined) return '–';
    const steps: [number, string][] = [[1e9, 'GB'], [1e6, 'MB'], [1e3, 'kB']];
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

const dayFormat = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const clockFormat = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

export const day = (time: string | Date) => dayFormat.format(new Date(time));
export const clock = (time: string | Date) => clockFormat.format(new Date(time));
export const dayAndClock = (time: string | Date) => `${day(time)}, ${clock(time)}`;

/** A version in machine form as people write it: 8.7.0 is 8.7. */
export const version = (v: string) => v.replace(/^(\d+\.\d+)\.0(?=$|-)/, '$1').replace('-rc.1', ' candidate').replace(/-([a-z]+)\./, ' $1 ');

const KIND_NAMES: Record<string, string> = { 'call-log': 'call log', 'app-data': 'app data', 'home-layout': 'home layout', 'saved-passwords': 'saved passwords', 'payment-cards': 'payment cards', 'sign-ins': 'sign-ins (bank, mail)', esim: 'eSIM', 'accessory-pairing': 'accessory pairing' };
export const kindName = (kind: string) => KIND_NAMES[kind] ?? kind;
