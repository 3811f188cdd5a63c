<script setup lang="ts">
const isOpen = defineModel<boolean>({ required: true })
const KEYS = [
  ['?', 'this sheet'],
  ['/', 'to the line for a whole breaker'],
  ['Enter', 'save the line'],
  ['arrows', 'walk through the spaces of the panel'],
  ['Esc', 'clear selection; leave the line'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Y', 'Redo'],
  ['Ctrl K', 'find a place, a thing, a finding or a rule'],
  [
    'g w p o f r b k j',
    'g, then a letter: Walk, Panel, Outlets, Findings, Report, Calculators, Rule book, Jobs',
  ],
] as const
const LINE = [
  ['7 20 14cu nm porch lights', 'space 7, 20 A, 14 AWG copper, NM, “porch lights”'],
  [
    '5 20 12-3cu nm-b with 9 untied counter left',
    'three-conductor cable, shares its neutral with space 9, handles not tied',
  ],
  ['2 2p 60 4al se feeder', 'two poles, 60 A, 4 AWG aluminum, SE, feeds another panel'],
  ['28 15 spare', 'a spare'],
] as const
const WORDS =
  'Metal: cu al cca tinned silver · wiring: nm nm-b cloth uf ac spiral mc emt pvc flex se kt · ' +
  'protection: gfci afci dual plain · handles: common tie untied nail · poles: 2p 3p · half of a space: 7a 7b'
</script>

<template>
  <UModal
    v-model:open="isOpen"
    title="Keys and the breaker line"
    description="Everything here can also be done by touch."
  >
    <template #body>
      <dl class="keys">
        <template v-for="[k, what] in KEYS" :key="k">
          <dt><UKbd v-for="part in k.split(' ')" :key="part" :value="part" /></dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
      <h3 class="mt-4 font-bold">A breaker in one line</h3>
      <dl>
        <template v-for="[line, what] in LINE" :key="line"
          ><dt>{{ line }}</dt>
          <dd class="small soft">{{ what }}</dd></template
        >
      </dl>
      <p class="small soft mt-3">{{ WORDS }}</p>
    </template>
  </UModal>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.35rem 1rem;
}
dl:not(.keys) dt {
  font-family: var(--font-mono);
  margin-top: 0.5rem;
}
</style>
