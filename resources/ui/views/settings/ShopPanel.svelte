<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import type { Shop } from '../../api/types';
    import { day } from '../../parts/format';
    import { session } from '../../shell/session.svelte';

    let { leads }: { leads: boolean } = $props();
    const ZONES = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== 'UTC')];
    const FORMS: [Shop['dateForm'], string][] = [
        ['day-month-year', '29 Nov 2026'],
        ['month-day-year', 'Nov 29, 2026'],
        ['year-month-day', '2026-11-29'],
    ];
    const DAYS: [number, string][] = [
        [1, 'Monday'],
        [6, 'Saturday'],
        [7, 'Sunday'],
    ];
    const LARGEST = 200_000;
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['shop'], queryFn: shelf.shop }));
    let edited = $state<Shop | null>(null);
    const s = $derived(edited ?? held.data ?? null);
    let tooLarge = $state<string | null>(null);
    const set = <K extends keyof Shop>(field: K, value: Shop[K]) => {
        if (s !== null) edited = { ...s, [field]: value };
    };
    const save = createMutation(() => ({
        mutationFn: (shop: Shop) => shelf.keepShop(shop),
        onSuccess: async (shop) => {
            queries.setQueryData(['shop'], shop);
            edited = null;
            await session.look();
        },
    }));
    function logo(event: Event & { currentTarget: HTMLInputElement }) {
        const file = event.currentTarget.files?.[0];
        tooLarge = null;
        if (file === undefined) return;
        if (file.size > LARGEST || !['image/png', 'image/jpeg'].includes(file.type)) {
            tooLarge = 'Take a PNG or JPEG picture of at most 200 kB.';
            return;
        }
        const reader = new FileReader();
        reader.onload = () => set('logo', String(reader.result));
        reader.readAsDataURL(file);
    }
</script>

<section class="panel" aria-labelledby="shop" id="at-shop">
    <h2 id="shop" class="mb-1">The shop</h2>
    <p class="text-sm text-quiet">
        Who it is on the sheets that owners take home, and how times are told on every screen, sheet and label.
    </p>
    {#if s && !leads}
        <p class="mt-2 text-sm">
            {s.name || 'No name yet'}{s.contact ? `, ${s.contact}` : ''}. Times are those of {s.timeZone}, days as {day(
                new Date(),
            )}.
        </p>
    {:else if s}
        <form
            class="mt-2 grid gap-x-4 gap-y-3 text-sm @3xl:grid-cols-2 @6xl:grid-cols-3"
            onsubmit={(e) => {
                e.preventDefault();
                save.mutate(s);
            }}
        >
            <label class="flex flex-col"
                >Name<input
                    class="field"
                    name="shop-name"
                    data-about="name"
                    maxlength="120"
                    value={s.name}
                    oninput={(e) => set('name', e.currentTarget.value)}
                /></label
            >
            <label class="flex flex-col"
                >How owners reach it<textarea
                    class="field py-2"
                    rows="2"
                    name="shop-contact"
                    data-about="contact"
                    maxlength="500"
                    value={s.contact}
                    oninput={(e) => set('contact', e.currentTarget.value)}></textarea></label
            >
            <div class="flex items-end gap-3">
                <label class="flex flex-1 flex-col"
                    >Logo, PNG or JPEG<input
                        class="field py-2"
                        type="file"
                        name="shop-logo"
                        data-about="logo"
                        accept="image/png,image/jpeg"
                        onchange={logo}
                    /></label
                >
                {#if s.logo}<img
                        class="h-11 max-w-28 bg-white object-contain"
                        src={s.logo}
                        alt="The shop’s logo"
                    /><button type="button" class="act-quiet" onclick={() => set('logo', null)}>Without it</button>{/if}
            </div>
            {#if tooLarge !== null}<p class="text-amber @3xl:col-span-2" role="alert">{tooLarge}</p>{/if}
            <label class="flex flex-col"
                >Time zone<select
                    class="field"
                    name="timeZone"
                    value={s.timeZone}
                    onchange={(e) => set('timeZone', e.currentTarget.value)}
                    >{#each ZONES as z (z)}<option value={z}>{z.replaceAll('_', ' ')}</option>{/each}</select
                ></label
            >
            <label class="flex flex-col"
                >Days are written<select
                    class="field"
                    name="dateForm"
                    value={s.dateForm}
                    onchange={(e) => set('dateForm', e.currentTarget.value as Shop['dateForm'])}
                    >{#each FORMS as [form, words] (form)}<option value={form}>{words}</option>{/each}</select
                ></label
            >
            <label class="flex flex-col"
                >A week begins on<select
                    class="field"
                    name="firstDay"
                    value={s.firstDay}
                    onchange={(e) => set('firstDay', Number(e.currentTarget.value))}
                    >{#each DAYS as [n, name] (n)}<option value={n}>{name}</option>{/each}</select
                ></label
            >
            {#if save.isError}<p class="rounded-md bg-amber-wash p-2 text-amber @3xl:col-span-2" role="alert">
                    {save.error.message}
                </p>{/if}
            <div><button class="act" disabled={edited === null || save.isPending}>Save the shop</button></div>
        </form>
    {/if}
</section>
