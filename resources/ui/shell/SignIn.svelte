<script lang="ts">
    import { session } from './session.svelte';
    import SignInForm from './SignInForm.svelte';
    import SignInFrame from './SignInFrame.svelte';
</script>

<SignInFrame title="Sign in">
    <SignInForm onbegin={() => session.beginAgain()} />
</SignInFrame>
