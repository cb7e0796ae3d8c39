<script lang="ts">
    import { toString as qrCode } from 'qrcode';
    import { access } from '../api/access';

    /** Sets a second factor up: the secret as a picture and as text, its first code, and the recovery codes. */
    let { onset }: { onset: () => void } = $props();
    let secret = $state<{ secret: string; address: string } | null>(null);
    let drawn = $state('');
    let code = $state('');
    let recovery = $state<string[] | null>(null);
    let problem = $state<string | null>(null);

    const tried = (what: () => Promise<void>) => async () => {
        problem = null;
        try {
            await what();
        } catch (e) {
            problem = (e as Error).message;
        }
    };
    const begin = tried(async () => {
        secret = await access.beginSecondFactor();
        drawn = await qrCode(secret.address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
    });
    const confirm = tried(async () => {
        recovery = (await access.confirmSecondFactor(code)).recoveryCodes;
    });
</script>

{#if recovery !== null}
    <p class="text-sm">
        Your second factor counts from now on. Write these recovery codes down: each lets you in once when the device
        that makes the codes is gone, and they are shown this once.
    </p>
    <ul class="mt-2 grid max-w-md grid-cols-2 gap-x-6 gap-y-1 font-mono text-sm" aria-label="Recovery codes">
        {#each recovery as one (one)}<li>{one}</li>{/each}
    </ul>
    <button type="button" class="act mt-3" onclick={onset}>I have written them down</button>
{:else if secret !== null}
    <form
        class="flex flex-wrap items-start gap-5"
        onsubmit={(e) => {
            e.preventDefault();
            void confirm();
        }}
    >
        <div class="h-40 w-40 shrink-0 bg-white" role="img" aria-label="The secret as a picture to scan">
            <!-- eslint-disable-next-line svelte/no-at-html-tags -- the library's own drawing, with no text in it -->
            {@html drawn}
        </div>
        <div class="flex max-w-sm flex-col gap-3 text-sm">
            <p>Scan it with a program that makes time-based codes, or type the secret there:</p>
            <p class="font-mono break-all" data-secret>{secret.secret}</p>
            <label class="flex flex-col gap-1"
                >The code that it shows<input
                    class="field font-mono"
                    name="code"
                    inputmode="numeric"
                    autocomplete="one-time-code"
                    required
                    bind:value={code}
                /></label
            >
            <button class="act self-start">Switch it on</button>
        </div>
    </form>
{:else}
    <button type="button" class="act" onclick={() => void begin()}>Set a second factor up</button>
{/if}
{#if problem !== null}<p class="mt-3 rounded-md bg-amber-wash p-3 text-sm text-amber" role="alert">{problem}</p>{/if}
