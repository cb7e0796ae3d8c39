<script lang="ts">
    import { link } from 'svelte-spa-router';
</script>

<svelte:head><title>No such page · Jade Step</title></svelte:head>
<section class="panel max-w-xl">
    <h1>There is no such page</h1>
    <p class="my-3 text-quiet">The address may be old or mistyped.</p>
    <a class="act" href="/" use:link>Go to the Bench</a>
</section>
