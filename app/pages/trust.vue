<script setup lang="ts">
useHead({ title: 'Trust the certificate · Jovial Anchor' })
</script>

<template>
  <main class="mx-auto max-w-2xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">Trust the certificate</h1>
    <p class="mt-1 text-soft">
      Your shop made this certificate on its own computer. Do this once on each phone, in the shop’s network.
    </p>
    <ol class="mt-4 list-decimal space-y-4 pl-6">
      <li>
        <h2 class="text-lg">Save the certificate</h2>
        <p><a href="/api/certificate" download class="act mt-1">Save certificate</a></p>
      </li>
      <li>
        <h2 class="text-lg">Install it in the settings of the phone</h2>
        <p>
          Search the settings for “certificate”. Choose “Install a certificate”, then “CA certificate”, and
          pick the saved file. On other phones open the saved file, then install the profile under “Profile
          downloaded”.
        </p>
      </li>
      <li>
        <h2 class="text-lg">Switch it on where the phone asks for it</h2>
        <p>
          Some phones trust it only after one more switch: search the settings for “certificate trust” and
          switch on “Jovial Anchor”.
        </p>
      </li>
    </ol>
    <p class="mt-5 border-l-4 border-measure bg-card px-3 py-2">
      Install it only if you know that this address is your shop’s computer. The phone then trusts every page
      that this computer signs.
    </p>
    <p class="mt-4"><NuxtLink to="/" class="underline">Open the jobs</NuxtLink></p>
  </main>
</template>
