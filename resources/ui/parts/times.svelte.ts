import { parseDate, parseDateTime, toCalendarDateTime, toZoned } from '@internationalized/date';
import type { Shop } from '../api/types';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const TOLD = /\b\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?Z/g;
const WHOLE = new RegExp(`^${TOLD.source}$`);
/** Names that may look like sentences: what lies in a bag, and what somebody has typed. */
const LEFT_ALONE = new Set(['path', 'onlyHere', 'onlyThere', 'text', 'notes', 'holder', 'contact', 'logo']);

type Parts = { year: number; month: number; day: number; hour: string; minute: string };

/** How the shop tells times: one zone and one form of a date, on every screen and sheet. */
class Times {
    #zone = $state('UTC');
    #form = $state<Shop['dateForm']>('day-month-year');
    #firstDay = $state(1);

    get zone() {
        return this.#zone;
    }

    get form() {
        return this.#form;
    }

    /** Day of the week that a week begins with: 0 is Sunday. */
    get firstDay() {
        return (this.#firstDay % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
    }

    /** The zone as people say it: London for Europe/London. */
    get zoneName() {
        return this.#zone === 'UTC' ? 'UTC' : `${(this.#zone.split('/').at(-1) ?? '').replaceAll('_', ' ')} time`;
    }

    keep(shop: Shop): void {
        this.#zone = shop.timeZone;
        this.#form = shop.dateForm;
        this.#firstDay = shop.firstDay;
    }

    parts(time: string | Date): Parts {
        const told = new Intl.DateTimeFormat('en-GB', {
            timeZone: this.#zone,
            year: 'numeric',
            month: 'numeric',
            day: 'numeric',
            hour: '2-digit',
            minute: '2-digit',
            hourCycle: 'h23',
        }).formatToParts(new Date(time));
        const of = (type: Intl.DateTimeFormatPartTypes) => told.find((p) => p.type === type)?.value ?? '';
        return {
            year: Number(of('year')),
            month: Number(of('month')),
            day: Number(of('day')),
            hour: of('hour'),
            minute: of('minute'),
        };
    }

    day(time: string | Date): string {
        const { year, month, day } = this.parts(time);
        return this.written(year, month, day);
    }

    clock(time: string | Date): string {
        const { hour, minute } = this.parts(time);
        return `${hour}:${minute}`;
    }

    /** A day without its year, where the year is clear. */
    dayOfYear(time: string | Date): string {
        const { month, day } = this.parts(time);
        return this.#form === 'month-day-year' ? `${MONTHS[month - 1]} ${day}` : `${day} ${MONTHS[month - 1]}`;
    }

    /** The day of the week, short: "Fri". */
    weekday(time: string | Date): string {
        return new Intl.DateTimeFormat('en-GB', { timeZone: this.#zone, weekday: 'short' }).format(new Date(time));
    }

    month(time: string | Date): string {
        const { year, month } = this.parts(time);
        return `${MONTHS[month - 1]} ${year}`;
    }

    /** A day that has no zone, such as one that was picked: `2026-11-29` as the shop writes it. */
    plainDay(iso: string): string {
        const { year, month, day } = parseDate(iso);
        return this.written(year, month, day);
    }

    /** Reads a day as the shop writes it, or as 2026-11-29; null where it is none. */
    readDay(text: string): string | null {
        const numbers = text.match(/\d+/g) ?? [];
        const name = MONTHS.findIndex((m) => text.toLowerCase().includes(m.toLowerCase()));
        const iso = /^\s*\d{4}-\d+-\d+\s*$/.test(text);
        const [year, month, day] = iso
            ? numbers
            : name >= 0
              ? [numbers.find((n) => n.length === 4), String(name + 1), numbers.find((n) => n.length < 3)]
              : this.#form === 'month-day-year'
                ? [numbers[2], numbers[0], numbers[1]]
                : [numbers[2], numbers[1], numbers[0]];
        if (year?.length !== 4 || month === undefined || day === undefined) return null;
        try {
            return parseDate(`${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`).toString();
        } catch {
            return null;
        }
    }

    /** A date and time of the shop's clock, `2026-11-29T08:30`, as RFC 3339 in UTC. */
    instant(local: string): string {
        return toZoned(parseDateTime(local), this.#zone)
            .toAbsoluteString()
            .replace(/\.\d+Z$/, 'Z');
    }

    /** The day of the shop's calendar at a moment, as 2026-11-29. */
    isoDay(time: string | Date): string {
        const { year, month, day } = this.parts(time);
        return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
    }

    startOfDay(iso: string): string {
        return this.instant(toCalendarDateTime(parseDate(iso)).toString());
    }

    private written(year: number, month: number, day: number): string {
        if (this.#form === 'year-month-day')
            return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
        const name = MONTHS[month - 1];
        return this.#form === 'month-day-year' ? `${name} ${day}, ${year}` : `${day} ${name} ${year}`;
    }
}

export const times = new Times();

/** A text that is a time and nothing else, in the shop's form; any other as it is. */
export const inShopsForm = (text: string) => (WHOLE.test(text) ? `${times.day(text)}, ${times.clock(text)}` : text);

/** The server's sentences tell times in RFC 3339; here they come into the shop's form. Times of their own stay. */
export function told<T>(answer: T): T {
    if (typeof answer === 'string')
        return (
            WHOLE.test(answer) ? answer : answer.replace(TOLD, (time) => `${times.day(time)}, ${times.clock(time)}`)
        ) as T;
    if (Array.isArray(answer)) return answer.map(told) as T;
    if (answer === null || typeof answer !== 'object') return answer;
    return Object.fromEntries(
        Object.entries(answer).map(([key, value]) => [key, LEFT_ALONE.has(key) ? value : told(value as unknown)]),
    ) as T;
}
