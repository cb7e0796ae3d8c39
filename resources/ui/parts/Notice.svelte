<script lang="ts">
    import type { Snippet } from 'svelte';

    let { tone = 'quiet', children }: { tone?: 'quiet' | 'amber' | 'loss' | 'jade'; children: Snippet } = $props();
    const tones = {
        quiet: 'bg-sunken text-ink',
        amber: 'bg-amber-wash text-amber',
        loss: 'bg-loss-wash text-loss',
        jade: 'bg-jade-wash text-jade-strong',
    };
</script>

<div class="rounded-md px-4 py-3 {tones[tone]}" data-tone={tone} role={tone === 'quiet' ? undefined : 'status'}>
    {@render children()}
</div>
