<script lang="ts">
    import type { WindowLane } from '../../api/types';
    import Copied from '../../parts/Copied.svelte';
    import { bytes, dayAndClock } from '../../parts/format';

    let { lanes, chosen, onchoose }: { lanes: WindowLane[]; chosen: string | null; onchoose: (build: string) => void } =
        $props();
</script>

<div class="overflow-x-auto">
    <table class="w-full min-w-[52rem] text-sm [&_td]:pr-4 [&_th]:pr-4">
        <caption class="sr-only">Builds and their signing windows</caption>
        <thead class="text-left text-quiet"
            ><tr
                ><th class="py-1 font-normal">Version</th><th class="font-normal">Build</th><th class="font-normal"
                    >Channel</th
                ><th class="font-normal">What it is now</th><th class="font-normal">Windows</th><th
                    class="text-right font-normal">Size</th
                ></tr
            ></thead
        >
        <tbody>
            {#each lanes as lane (lane.build)}
                <tr class="border-t border-edge align-top {chosen === lane.build ? 'bg-jade-wash' : ''}">
                    <th scope="row" class="py-1 text-left"
                        ><button
                            class="underline decoration-edge underline-offset-4 hover:decoration-jade"
                            onclick={() => onchoose(lane.build)}>{lane.label}</button
                        ></th
                    >
                    <td><Copied text={lane.build} what="Build" /></td><td>{lane.channel}</td><td>{lane.words}</td>
                    <td class="min-w-56"
                        >{#each lane.windows as w (w.from)}<span class="block"
                                >{dayAndClock(w.from)} – {w.until === null ? 'open' : dayAndClock(w.until)}{w.announced
                                    ? ', announced'
                                    : ''}</span
                            >{:else}none{/each}</td
                    >
                    <td class="text-right whitespace-nowrap">{bytes(lane.package.bytes)}</td>
                </tr>
            {/each}
        </tbody>
    </table>
</div>
