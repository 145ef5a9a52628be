<script setup lang="ts">
import { roleWords } from '../utils/people'

useHead({ title: 'People · Jovial Anchor' })
useKeys(shopKeys)

const session = useAccount()
const address = window.location.origin
/** Such an address leads a phone to itself. */
const isOfThisMachine = /^(127\.|localhost$|\[::1\])/.test(window.location.hostname)
</script>

<template>
  <main class="mx-auto max-w-4xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">People</h1>
    <template v-if="session.isShop && session.person">
      <p class="mb-5 text-soft">
        You are signed in as {{ session.person.name }}, {{ roleWords[session.person.role].toLowerCase() }}.
      </p>
      <div class="grid gap-8">
        <!-- Lists that come late stand below the forms: nothing moves away under a press. -->
        <QuickSignIn />
        <OwnSessions />
        <PeopleList v-if="session.person.role === 'owner'" />
        <TokenList v-if="session.person.role === 'owner'" />
        <ShopSwitch v-if="session.person.role === 'owner'" />
        <section class="flex flex-wrap gap-4" aria-labelledby="phone-title">
          <QrCode v-if="!isOfThisMachine" :address="address" label="Code of the address" />
          <div class="grow basis-60">
            <h2 id="phone-title" class="text-xl">Open it on a phone</h2>
            <p v-if="isOfThisMachine">
              The terminal that runs the application shows the address for phones, and its code.
            </p>
            <template v-else>
              <p>Join the shop’s network with the phone, scan the code and sign in.</p>
              <p class="font-semibold break-all">{{ address }}</p>
            </template>
            <p class="mt-2">
              <NuxtLink to="/trust" class="underline">Trust the certificate</NuxtLink> once on each phone.
              Until then the browser warns, and the phone works only with a connection.
            </p>
          </div>
        </section>
      </div>
    </template>
    <template v-else>
      <p class="mt-2">Now the application answers only on this machine, and nobody signs in.</p>
      <h2 class="mt-5 text-xl">Use it with phones and colleagues</h2>
      <ol class="mt-2 list-decimal space-y-1 pl-6">
        <li>Stop the application with Ctrl+C in its terminal. The jobs stay.</li>
        <li>
          Start it with <code class="font-semibold">npm start -- --shop</code>, or with
          <code class="font-semibold">npm start</code> after the switch below.
        </li>
        <li>Scan the code in the terminal, or open the link below it. You become the owner.</li>
        <li>Invite people here. Each gets a link and a role.</li>
      </ol>
      <p class="mt-3 text-soft">
        The application then answers on your network by HTTPS. Nobody sees a job without signing in.
      </p>
      <ShopSwitch class="mt-4" />
    </template>
  </main>
</template>
