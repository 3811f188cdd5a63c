<script lang="ts">
import type { Moment } from '#core'

export interface YearLineProps {
  moments: readonly Moment[]
}
</script>

<script setup lang="ts">
const { moments } = defineProps<YearLineProps>()
/** Years as rows, oldest first: what was required on one side, what the house got on the other. */
const rows = computed(() => {
  const years = [...new Set(moments.map(m => m.year))].sort((a, b) => a - b)
  return years.map(year => ({
    year,
    required: moments.filter(m => m.year === year && m.lane === 'required'),
    house: moments.filter(m => m.year === year && m.lane === 'house'),
    edition: moments.find(m => m.year === year && m.lane === 'edition'),
  }))
})
const built = computed(() => Math.min(...moments.filter(m => m.lane === 'house').map(m => m.year)))
</script>

<template>
  <!-- Two sides of one axis of years: a drawing that is read as a table, and printed. -->
  <table class="years">
    <thead>
      <tr>
        <th scope="col">Required from then</th>
        <th scope="col" class="mid">Year</th>
        <th scope="col">Put in here</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in rows" :key="r.year" :class="{ edition: r.edition, before: r.year < built }">
        <td class="left">
          <p v-for="m in r.required" :key="m.text">{{ m.text }}</p>
        </td>
        <th scope="row" class="mid">
          <span class="dot" :class="{ house: r.house.length, rule: r.required.length }" />
          {{ r.year
          }}<span v-if="r.edition" class="small ed">{{ r.edition.text.replace(/^\d+ /, '') }}</span>
        </th>
        <td>
          <p v-for="m in r.house" :key="m.text + m.subject" class="here">
            {{ m.text }}<span v-if="m.until" class="soft"> (up to {{ m.until }})</span>
          </p>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.years {
  width: 100%;
  max-width: 64rem;
  border-collapse: collapse;
}
.years thead th {
  text-align: left;
  color: var(--soft);
  font-weight: 600;
  padding: 0.4rem 0.6rem;
  font-size: 0.85rem;
}
.years thead th:first-child {
  text-align: right;
}
.years td {
  padding: 0.3rem 0.6rem;
  vertical-align: top;
  width: 42%;
}
.left {
  text-align: right;
}
.mid {
  text-align: center !important;
  border-left: 1px solid var(--line);
  border-right: 1px solid var(--line);
  padding: 0.3rem 0.7rem;
  white-space: nowrap;
  font-weight: 700;
  vertical-align: top;
}
.ed {
  display: block;
  font-weight: 400;
  color: var(--cool);
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border: 2px solid var(--line);
  margin-right: 0.3rem;
  transform: rotate(45deg);
}
.dot.rule {
  border-color: var(--cool);
}
.dot.house {
  background: var(--touch);
  border-color: var(--touch);
}
.before td {
  color: var(--soft);
}
.here {
  font-weight: 600;
}
tbody tr {
  border-bottom: 1px solid color-mix(in srgb, var(--line) 50%, transparent);
}
/* A phone has no room for two sides: the year, and beside it what was required and what was put in. */
@media (max-width: 600px) {
  .years thead {
    display: none;
  }
  .years tr {
    display: grid;
    grid-template-columns: 5.2rem minmax(0, 1fr);
    padding: 0.4rem 0;
  }
  .mid {
    grid-column: 1;
    grid-row: 1 / span 2;
    border: 0;
    padding: 0;
    text-align: left !important;
    white-space: normal;
  }
  .years td {
    grid-column: 2;
    width: auto;
    padding: 0;
    text-align: left;
  }
  .left p:first-child::before {
    content: 'from then required';
    display: block;
    font-size: 0.8rem;
    color: var(--soft);
  }
  .here:first-child::before {
    content: 'put in here';
    display: block;
    font-size: 0.8rem;
    font-weight: 400;
    color: var(--soft);
  }
}
</style>
