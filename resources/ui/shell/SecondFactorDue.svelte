<script lang="ts">
    import SecondFactorSetUp from '../parts/SecondFactorSetUp.svelte';
    import PasswordAgain from './PasswordAgain.svelte';
    import { session } from './session.svelte';
    import SignInFrame from './SignInFrame.svelte';
</script>

<SignInFrame title="Second factor">
    <div class="flex max-w-xl flex-col gap-4">
        <p>
            Leads sign in with a second factor here: a code from a device of yours, beside the password. Set yours up,
            then go on.
        </p>
        <div><SecondFactorSetUp onset={() => void session.look()} /></div>
        <button class="act-quiet self-start" onclick={() => session.signOut()}>Sign out</button>
    </div>
</SignInFrame>
<PasswordAgain />
