<script lang="ts">
    import type { Batch } from '../../api/types';
    import { moment, names } from './words';

    let { batch }: { batch: Batch } = $props();
    const name = $derived(names(batch));
    const who = (devices: string[]) => (devices.length === 0 ? '' : ` (${devices.map(name).join(', ')})`);
</script>

<section class="panel py-3" aria-labelledby="changed">
    <h2 id="changed">What changed</h2>
    {#if batch.changes.length === 0}<p class="text-sm text-quiet">
            Nothing yet. The schedule is made again as steps end early or late, and what is different stands here.
        </p>{/if}
    <ol class="max-h-56 overflow-auto text-sm" aria-live="polite">
        {#each batch.changes as c, i (c.at + i)}<li class="border-t border-edge py-1.5" data-change>
                <span class="block">{c.words.join(' ')}{who(c.devices)}</span>
                <span class="text-quiet">{moment(c.at)}</span>
            </li>{/each}
    </ol>
</section>
