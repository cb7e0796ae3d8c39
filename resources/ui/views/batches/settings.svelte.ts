import type { Batch, BatchSettings } from '../../api/types';
import { instant } from '../../parts/format';
import { times } from '../../parts/times.svelte';
import { clockOf, dayOf } from './words';
import { session } from '../../shell/session.svelte';

const WORKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri'] as const;
export const DAYS = [...WORKDAYS, 'sat', 'sun'] as const;
type Day = BatchSettings['workshop']['days'][number];

/** What a batch has to work with, while it is filled in. Days and clock times are the shop's. */
export class Settings {
    name = $state('');
    startDay = $state('');
    startClock = $state('08:00');
    endDay = $state('');
    endClock = $state('17:00');
    ports = $state(8);
    technicians = $state('');
    days = $state<Day[]>([...WORKDAYS]);
    from = $state('08:00');
    until = $state('17:00');

    constructor(batch: Batch | null = null) {
        if (batch === null) {
            this.startDay = dayOf(Date.now());
            this.startClock = clockOf(Date.now());
            this.technicians = session.person?.name ?? '';
            return;
        }
        this.name = batch.name;
        this.startDay = dayOf(batch.startsAt);
        this.startClock = times.clock(batch.startsAt);
        if (batch.deadline !== null) {
            this.endDay = dayOf(batch.deadline);
            this.endClock = times.clock(batch.deadline);
        }
        this.ports = batch.workshop.ports;
        this.technicians = batch.workshop.technicians.join(', ');
        this.days = [...batch.workshop.days];
        this.from = batch.workshop.from;
        this.until = batch.workshop.until;
    }

    get people(): string[] {
        return this.technicians
            .split(',')
            .map((n) => n.trim())
            .filter((n) => n !== '');
    }

    get ready(): boolean {
        return this.name.trim() !== '' && this.startDay !== '' && this.people.length > 0 && this.ports > 0;
    }

    toggle(day: Day): void {
        this.days = DAYS.filter((d) => (d === day ? !this.days.includes(d) : this.days.includes(d)));
    }

    written(): BatchSettings {
        return {
            name: this.name.trim(),
            startsAt: instant(`${this.startDay}T${this.startClock}`),
            deadline: this.endDay === '' ? null : instant(`${this.endDay}T${this.endClock}`),
            workshop: {
                ports: this.ports,
                technicians: this.people,
                days: this.days,
                from: this.from,
                until: this.until,
            },
        };
    }
}
