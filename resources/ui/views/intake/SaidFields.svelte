<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { almanac } from '../../api/almanac';
    import { scannable } from '../../parts/scan';
    import type { SaidDevice } from './said.svelte';

    let { device, withGoal = false }: { device: SaidDevice; withGoal?: boolean } = $props();

    const held = createQuery(() => ({ queryKey: ['almanac'], queryFn: almanac.show }));
    const names = $derived([...new Set((held.data?.models ?? []).map((m) => m.name))].sort());
    const places = $derived(
        [
            ...new Set(
                (held.data?.models ?? [])
                    .filter(
                        (m) =>
                            device.fields.modelName === '' ||
                            m.name.toLowerCase() === device.fields.modelName.trim().toLowerCase(),
                    )
                    .flatMap((m) => m.where),
            ),
        ].sort(),
    );
    const asked = (code: string) => device.identity?.questions[0]?.code === code;
    const mark = (code: string) => (asked(code) ? 'border-amber-mark border-2' : '');
    const changed = () => device.changed();
</script>

<div class="grid grid-cols-2 gap-x-4 gap-y-3">
    <label class="flex flex-col gap-1"
        >Name on the box<input
            class="field"
            name="modelName"
            list="model-names"
            autocomplete="off"
            bind:value={device.fields.modelName}
            oninput={changed}
        /></label
    >
    <datalist id="model-names"
        >{#each names as name (name)}<option value={name}></option>{/each}</datalist
    >
    <label class="flex flex-col gap-1"
        >IMEI<input
            class="field font-mono {mark('imei')}"
            name="imei"
            inputmode="numeric"
            autocomplete="off"
            placeholder="15 digits"
            aria-invalid={device.imeiFault !== null}
            aria-describedby={device.imeiFault === null ? undefined : 'imei-fault'}
            bind:value={device.fields.imei}
            oninput={changed}
        />{#if device.imeiFault !== null}<span class="field-fault" id="imei-fault" role="alert">{device.imeiFault}</span
            >{/if}</label
    >
    <label class="flex flex-col gap-1"
        >Where was it bought?
        <select
            class="field {mark('where-bought')}"
            name="whereBought"
            bind:value={device.fields.whereBought}
            onchange={changed}
            ><option value="">not known</option>{#each places as place (place)}<option value={place}>{place}</option
                >{/each}</select
        >
    </label>
    <label class="flex flex-col gap-1"
        >Is it tied to a carrier?
        <select
            class="field {mark('carrier-tied')}"
            name="carrierTied"
            bind:value={device.fields.carrierTied}
            onchange={changed}
            ><option value="">not known</option><option value="yes">yes</option><option value="no">no</option></select
        >
    </label>
    <label class="flex flex-col gap-1"
        >Serial<input
            class="field font-mono"
            name="serial"
            autocomplete="off"
            {@attach scannable()}
            bind:value={device.fields.serial}
        /></label
    >
    <div class="grid grid-cols-2 gap-2">
        <label class="flex flex-col gap-1"
            >Installed version<input
                class="field font-mono"
                name="version"
                autocomplete="off"
                placeholder="9.3"
                bind:value={device.fields.version}
            /></label
        >
        <label class="flex flex-col gap-1"
            >Build, if known<input
                class="field font-mono"
                name="build"
                autocomplete="off"
                placeholder="9D55"
                bind:value={device.fields.build}
            /></label
        >
    </div>
    {#if withGoal}<label class="col-span-2 flex flex-col gap-1"
            >Where to<input
                class="field"
                name="goal"
                autocomplete="off"
                placeholder="8.7, newest in 8, below 9.0 or before 2026-07-01; empty: the newest of the major before"
                bind:value={device.fields.goal}
            /></label
        >{/if}
</div>
