<script lang="ts">
import type { CommandPaletteGroup, CommandPaletteItem } from '@nuxt/ui'
</script>

<script setup lang="ts">
import { labelOf, RULES, valueOf } from '#core'

const isOpen = defineModel<boolean>({ default: false })
const job = useJobStore()
const router = useRouter()
const { all } = usePlaces()
/** More than a hand would scroll: the rest is found by typing. */
const MOST = 40

function go(to: string | { path: string; query: Record<string, string> }) {
  isOpen.value = false
  void router.push(to)
}
const things = computed<CommandPaletteItem[]>(() => {
  if (!isOpen.value || job.jobId === undefined) return []
  const base = `/jobs/${job.jobId}`
  const { site } = job
  return [
    ...site.all.enclosure.map(e => ({
      label: labelOf(site, e),
      icon: 'lucide:rows-3',
      onSelect: () => go({ path: `${base}/panel`, query: { at: e.id } }),
    })),
    ...site.all.room.map(r => ({
      label: valueOf(r, 'name') ?? 'room',
      suffix: 'room',
      icon: 'lucide:door-open',
      onSelect: () => go({ path: `${base}/outlets`, query: { view: 'rooms', room: r.id } }),
    })),
    ...site.all.circuit.map(c => ({
      label: labelOf(site, c),
      suffix: 'circuit',
      icon: 'lucide:list-tree',
      onSelect: () => go({ path: `${base}/outlets`, query: { circuit: c.id } }),
    })),
    ...site.all.outlet.map(p => ({
      label: labelOf(site, p),
      icon: 'lucide:plug',
      onSelect: () =>
        go({
          path: `${base}/outlets`,
          query: { view: 'rooms', room: valueOf(p, 'room') ?? 'lost', outlet: p.id },
        }),
    })),
  ]
})
const found = computed<CommandPaletteItem[]>(() => {
  if (!isOpen.value || job.jobId === undefined) return []
  const seen = new Set<string>()
  return job.findings.flatMap(f => {
    const rule = RULES.find(r => r.id === f.rule)
    if (!rule || seen.has(f.rule)) return []
    seen.add(f.rule)
    return {
      label: rule.fault,
      suffix: 'found here',
      icon: 'lucide:triangle-alert',
      onSelect: () => go({ path: `/jobs/${job.jobId}/findings`, query: { rule: f.rule } }),
    }
  })
})
const groups = computed<CommandPaletteGroup[]>(() => [
  {
    id: 'places',
    label: 'Places',
    items: all.value.map(p => ({
      label: p.name,
      icon: p.icon,
      kbds: ['g', p.key],
      onSelect: () => go(p.to),
    })),
  },
  { id: 'things', label: 'In this house', items: things.value },
  { id: 'found', label: 'Findings', items: found.value },
  {
    id: 'rules',
    label: 'Rule book',
    items: RULES.map(r => ({
      label: r.title,
      icon: 'lucide:book-open',
      onSelect: () => go({ path: '/rules', query: { rule: r.id } }),
    })),
  },
])
</script>

<template>
  <UModal v-model:open="isOpen" title="Go to" description="A place, a thing, a finding or a rule">
    <template #content>
      <UCommandPalette
        class="h-[26rem]"
        placeholder="Kitchen, space 7, 210.8, report"
        :groups="groups"
        :fuse="{ resultLimit: MOST, fuseOptions: { ignoreLocation: true, threshold: 0.25 } }"
        close
        data-testid="find"
        @update:open="isOpen = $event"
      />
    </template>
  </UModal>
</template>
