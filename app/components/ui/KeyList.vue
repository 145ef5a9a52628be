<template>
  <dl class="grid grid-cols-[7rem_1fr] gap-y-1.5">
    <template v-for="[key, effect] in keyList" :key="key"
      ><dt>
        <kbd class="key text-sm">{{ key }}</kbd>
      </dt>
      <dd>{{ effect }}</dd></template
    >
  </dl>
</template>
