<script lang="ts">
    import { AlertDialog } from 'bits-ui';
    import type { Snippet } from 'svelte';

    /** Asks before something ends or goes away, in its own words. */
    let {
        open = $bindable(false),
        title,
        yes,
        no = 'Not now',
        loss = false,
        busy = false,
        onyes,
        onno = () => {},
        children,
    }: {
        open: boolean;
        title: string;
        yes: string;
        no?: string;
        loss?: boolean;
        busy?: boolean;
        onyes: () => void;
        onno?: () => void;
        children?: Snippet;
    } = $props();

    /** The question goes with its answer; what comes of it is told elsewhere. */
    function answer() {
        onyes();
        open = false;
        onno();
    }
</script>

<AlertDialog.Root bind:open onOpenChange={(is) => is || onno()}>
    <AlertDialog.Portal>
        <AlertDialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <AlertDialog.Content class="panel dialog z-30 w-[34rem]">
            <AlertDialog.Title class="text-lg font-semibold">{title}</AlertDialog.Title>
            <AlertDialog.Description class="mt-1"
                >{#if children}{@render children()}{/if}</AlertDialog.Description
            >
            <div class="mt-4 flex flex-wrap justify-end gap-2">
                <AlertDialog.Cancel class="act-quiet">{no}</AlertDialog.Cancel>
                <AlertDialog.Action
                    class={loss ? 'act-quiet border-loss text-loss' : 'act'}
                    disabled={busy}
                    onclick={answer}>{yes}</AlertDialog.Action
                >
            </div>
        </AlertDialog.Content>
    </AlertDialog.Portal>
</AlertDialog.Root>
