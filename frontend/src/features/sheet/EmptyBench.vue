<script setup lang="ts">
/** No instrument is open: what is in the house, and how to begin. */
import { RAIL_ORDERS, useHouse } from '@/features/rail'
import { day } from '@/shared/format'

const house = useHouse()
</script>

<template>
  <section class="house" aria-label="In the house">
    <h1 v-if="house.tags.length">In the house</h1>
    <h1 v-else-if="house.isLoaded">No instrument is in the house yet</h1>
    <p class="how">
      <template v-if="house.tags.length"><kbd>Space</kbd> <kbd>f</kbd> finds one by ticket, owner or words · </template>
      <kbd>Space</kbd> <kbd>n</kbd> takes a new one in, <kbd>v</kbd> a fleet
      <template v-if="house.tags.length > 1"> · hung <b aria-live="polite">{{ RAIL_ORDERS[house.order] }}</b>, <kbd>Space</kbd> <kbd>q</kbd> changes the order</template>
    </p>
    <table v-if="house.tags.length">
      <thead class="only-read">
        <tr><th>Ticket</th><th>Instrument</th><th>Owner</th><th>Why it came</th><th>For</th><th>Next</th></tr>
      </thead>
      <tbody>
        <tr v-for="tag in house.found('')" :key="tag.ticket">
          <th scope="row">
            <router-link :to="{ name: 'bench', params: { ticket: tag.ticket } }">{{ tag.ticket }}</router-link>
          </th>
          <td>{{ tag.family }} {{ tag.size }}<template v-if="tag.left_handed">, left-handed</template></td>
          <td>{{ tag.owner }}</td>
          <td class="complaint">{{ tag.complaint }}</td>
          <td class="day">{{ [tag.deadline && `needed ${day(tag.deadline)}`, tag.promised && `promised ${day(tag.promised)}`].filter(Boolean).join(', ') }}</td>
          <td class="next"><b>{{ tag.step }}</b><span v-if="house.waitOf(tag)" class="wait">{{ house.waitOf(tag) }}</span></td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.house {
  margin: 10px 16px 64px;
  padding: 14px 18px;
  background: var(--sheet);
  border-radius: 4px;
  font-size: 17px;
}
h1 {
  font-size: 23px;
  margin: 0;
}
.how {
  margin: 2px 0 8px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 0 12px 0 0;
  height: 44px;
  text-align: left;
  border-top: 1px solid var(--hairline);
}
.next {
  line-height: 1.2;
}
.wait {
  display: block;
  color: var(--quiet);
}
.day {
  white-space: nowrap;
}
a {
  display: inline-block;
  padding: 10px 0;
  color: var(--action);
  white-space: nowrap;
}
kbd {
  padding: 1px 7px;
  font: inherit;
  font-weight: 700;
  border: 1px solid var(--ink);
  border-radius: 4px;
}
@media (max-width: 640px) {
  .complaint,
  .day {
    display: none;
  }
}
</style>
