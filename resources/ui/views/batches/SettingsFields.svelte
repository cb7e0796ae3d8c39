<script lang="ts">
    import DayField from '../../parts/DayField.svelte';
    import { times } from '../../parts/times.svelte';
    import { DAYS, type Settings } from './settings.svelte';

    let { settings }: { settings: Settings } = $props();
    const NAMES: Record<string, string> = {
        mon: 'Mon',
        tue: 'Tue',
        wed: 'Wed',
        thu: 'Thu',
        fri: 'Fri',
        sat: 'Sat',
        sun: 'Sun',
    };
</script>

<div class="grid gap-4 @3xl:grid-cols-2">
    <label class="flex flex-col gap-1 @3xl:col-span-2"
        >What it is for<input
            class="field"
            name="name"
            maxlength="120"
            required
            placeholder="Ferries of Saturday"
            bind:value={settings.name}
        /></label
    >
    <fieldset class="flex flex-wrap items-end gap-2">
        <legend class="mb-1">Work begins, {times.zoneName}</legend>
        <DayField name="start-day" label="First day" required bind:value={settings.startDay} />
        <label
            ><span class="sr-only">Begins at</span><input
                class="field w-36"
                type="time"
                name="start-clock"
                required
                bind:value={settings.startClock}
            /></label
        >
    </fieldset>
    <fieldset class="flex flex-wrap items-end gap-2">
        <legend class="mb-1">Deadline; leave the day empty for none</legend>
        <DayField name="end-day" label="Day of the deadline" bind:value={settings.endDay} />
        <label
            ><span class="sr-only">Deadline at</span><input
                class="field w-36"
                type="time"
                name="end-clock"
                bind:value={settings.endClock}
            /></label
        >
    </fieldset>
    <label class="flex flex-col gap-1"
        >Ports<input
            class="field w-28"
            type="number"
            name="ports"
            min="1"
            max="200"
            required
            bind:value={settings.ports}
        /></label
    >
    <label class="flex flex-col gap-1"
        >Technicians, by name, with commas between<input
            class="field"
            name="technicians"
            required
            bind:value={settings.technicians}
        /></label
    >
    <fieldset class="flex flex-wrap items-center gap-1">
        <legend class="mb-1">They are there on; none means always</legend>
        {#each DAYS as day (day)}<button
                type="button"
                class="chip"
                aria-pressed={settings.days.includes(day)}
                onclick={() => settings.toggle(day)}>{settings.days.includes(day) ? '✓ ' : ''}{NAMES[day]}</button
            >{/each}
    </fieldset>
    <fieldset class="flex items-end gap-2">
        <legend class="mb-1">From, until</legend>
        <label
            ><span class="sr-only">From</span><input
                class="field w-36"
                type="time"
                name="from"
                required
                bind:value={settings.from}
            /></label
        >
        <label
            ><span class="sr-only">Until</span><input
                class="field w-36"
                type="time"
                name="until"
                required
                bind:value={settings.until}
            /></label
        >
    </fieldset>
</div>
