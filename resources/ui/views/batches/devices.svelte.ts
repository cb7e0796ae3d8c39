import type { BatchDevices } from '../../api/batches';

/** Which devices are put in a batch, while they are chosen. */
export class Devices {
    serials = $state<string[]>([]);
    jobs = $state<number[]>([]);
    csv = $state('');
    /** How many lines of the table can be used; null before it was looked at. */
    good = $state<number | null>(null);
    goal = $state('');

    get many(): number {
        return this.serials.length + this.jobs.length + (this.csv.trim() === '' ? 0 : (this.good ?? 0));
    }

    written(): BatchDevices {
        const table = this.csv.trim() !== '' && (this.good ?? 0) > 0;
        return {
            serials: $state.snapshot(this.serials),
            jobs: $state.snapshot(this.jobs),
            csv: table ? this.csv : null,
            good: table ? this.good : null,
            goal: this.goal.trim(),
        };
    }
}
