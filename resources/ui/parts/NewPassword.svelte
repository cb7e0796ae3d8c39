<script lang="ts">
    /** A new password, typed twice. What is demanded of one is said before it is asked for. */
    let { password = $bindable(), again = $bindable() }: { password: string; again: string } = $props();
    let shown = $state(false);
</script>

<label class="flex flex-col gap-1"
    >New password<input
        class="field"
        type={shown ? 'text' : 'password'}
        name="new-password"
        autocomplete="new-password"
        minlength="12"
        maxlength="128"
        required
        bind:value={password}
    /></label
>
<label class="flex flex-col gap-1"
    >Once more<input
        class="field"
        type={shown ? 'text' : 'password'}
        name="new-password-again"
        autocomplete="new-password"
        required
        bind:value={again}
    /></label
>
<label class="flex items-center gap-2 text-sm"
    ><input type="checkbox" class="h-4 w-4 accent-[var(--jade)]" bind:checked={shown} />show what I type</label
>
<p class="text-sm text-quiet">At least 12 characters, not one that is guessed easily: several words, for instance.</p>
