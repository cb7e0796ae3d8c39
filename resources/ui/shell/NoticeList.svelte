<script lang="ts">
    import { History } from '@lucide/svelte';
    import { Popover } from 'bits-ui';
    import { clock } from '../parts/format';
    import { notices } from './notices.svelte';

    let open = $state(false);
    $effect(() => {
        if (open) notices.seen();
    });
</script>

<Popover.Root bind:open>
    <Popover.Trigger
        class="act-quiet relative"
        aria-label="Last notices{notices.unseen > 0 ? `, ${notices.unseen} not looked at` : ''}"
        ><History size="1.15em" aria-hidden="true" />{#if notices.unseen > 0}<span
                class="absolute -top-1 -right-1 rounded-full bg-jade px-1.5 text-xs text-on-jade"
                aria-hidden="true">{Math.min(notices.unseen, 99)}</span
            >{/if}</Popover.Trigger
    >
    <Popover.Portal>
        <Popover.Content
            class="panel z-30 max-h-[70vh] w-[26rem] max-w-[95vw] overflow-auto shadow-lg"
            align="end"
            sideOffset={6}
            aria-label="Last notices"
        >
            <h2 class="mb-1">What was said last</h2>
            <ul class="text-sm">
                {#each notices.list as n (n.id)}<li class="flex items-start gap-3 border-t border-edge py-2">
                        <span class="text-quiet">{clock(n.at)}</span><span class="flex-1 {n.good ? '' : 'text-amber'}"
                            >{n.words}</span
                        >{#if n.undo !== null}<button
                                class="act-quiet !min-h-9 shrink-0"
                                onclick={() => void notices.takeBack(n)}>{n.undo.label}</button
                            >{:else if n.way !== null}<a class="act-quiet !min-h-9 shrink-0" href={n.way.href}
                                >{n.way.words}</a
                            >{/if}
                    </li>{:else}<li class="text-quiet">
                        Nothing yet. What you do is answered here, and can often be taken back.
                    </li>{/each}
            </ul>
        </Popover.Content>
    </Popover.Portal>
</Popover.Root>
