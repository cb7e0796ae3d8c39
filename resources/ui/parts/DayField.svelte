<script lang="ts">
    import { parseDate, type CalendarDate, type DateValue } from '@internationalized/date';
    import { CalendarDays } from '@lucide/svelte';
    import { Calendar, Popover } from 'bits-ui';
    import { untrack } from 'svelte';
    import { times } from './times.svelte';

    /** A day as the shop writes it, typed or picked; `value` is 2026-11-29, or empty. Weeks begin as the shop's do. */
    let {
        value = $bindable(''),
        name,
        label,
        required = false,
        disabled = false,
        onchange = () => {},
    }: {
        value: string;
        name: string;
        label: string;
        required?: boolean;
        disabled?: boolean;
        onchange?: () => void;
    } = $props();
    const written = () => (value === '' ? '' : times.plainDay(value));
    let text = $state(untrack(written));
    let open = $state(false);
    const picked = $derived(value === '' ? undefined : (parseDate(value) as CalendarDate));
    $effect(() => {
        const now = written();
        if (times.readDay(untrack(() => text)) !== (value === '' ? null : value)) text = now;
    });

    function typed(field: HTMLInputElement) {
        const day = text.trim() === '' ? '' : times.readDay(text);
        field.setCustomValidity(day === null ? `Write the day as ${times.plainDay(times.isoDay(new Date()))}.` : '');
        if (day === null || day === value) return;
        value = day;
        onchange();
    }
    function pick(day: DateValue | undefined) {
        if (day === undefined) return;
        value = day.toString();
        text = written();
        open = false;
        onchange();
    }
</script>

<span class="flex items-stretch gap-1">
    <input
        class="field w-36"
        {name}
        {required}
        {disabled}
        autocomplete="off"
        aria-label={label}
        placeholder={times.plainDay(times.isoDay(new Date()))}
        bind:value={text}
        oninput={(e) => typed(e.currentTarget)}
        onblur={() => (text = times.readDay(text) === null ? text : written())}
    /><Popover.Root bind:open
        ><Popover.Trigger class="act-quiet !px-2" {disabled} type="button" aria-label="{label}: pick in a calendar"
            ><CalendarDays size="1.1em" aria-hidden="true" /></Popover.Trigger
        ><Popover.Portal
            ><Popover.Content class="panel z-50 p-3 shadow-lg" sideOffset={6} aria-label="Calendar"
                ><Calendar.Root
                    type="single"
                    value={picked}
                    onValueChange={pick}
                    weekStartsOn={times.firstDay}
                    weekdayFormat="short"
                    locale="en-GB"
                    calendarLabel={label}
                    >{#snippet children({ months, weekdays })}
                        <Calendar.Header class="mb-2 flex items-center justify-between"
                            ><Calendar.PrevButton class="act-quiet" aria-label="The month before">‹</Calendar.PrevButton
                            ><Calendar.Heading class="font-semibold" /><Calendar.NextButton
                                class="act-quiet"
                                aria-label="The month after">›</Calendar.NextButton
                            ></Calendar.Header
                        >
                        {#each months as month (month.value.toString())}<Calendar.Grid
                                ><Calendar.GridHead
                                    ><Calendar.GridRow
                                        >{#each weekdays as w, i (i)}<Calendar.HeadCell
                                                class="w-10 text-xs font-normal text-quiet">{w}</Calendar.HeadCell
                                            >{/each}</Calendar.GridRow
                                    ></Calendar.GridHead
                                ><Calendar.GridBody
                                    >{#each month.weeks as week, i (i)}<Calendar.GridRow
                                            >{#each week as date (date.toString())}<Calendar.Cell
                                                    {date}
                                                    month={month.value}
                                                    ><Calendar.Day
                                                        class={[
                                                            'grid size-10 place-items-center rounded-md',
                                                            'hover:bg-sunken data-selected:bg-jade',
                                                            'data-selected:text-on-jade data-today:font-bold',
                                                            'data-outside-month:text-quiet',
                                                        ]}
                                                    /></Calendar.Cell
                                                >{/each}</Calendar.GridRow
                                        >{/each}</Calendar.GridBody
                                ></Calendar.Grid
                            >{/each}
                    {/snippet}</Calendar.Root
                ></Popover.Content
            ></Popover.Portal
        ></Popover.Root
    >
</span>
